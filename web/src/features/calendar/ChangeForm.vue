<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { CalendarView, Operation } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'

import type { CalendarNow } from './useCalendar'

/** A change to try: what is waited for comes another day, or a piece of work is pinned to a moment or a person. */
const props = defineProps<{ view: CalendarView; chosen: string; now: CalendarNow }>()
const draft = ref({ job: '', what: '', day: '', at: '08:00', person: '' })
watch(
  () => props.chosen,
  (job) => {
    if (job) draft.value = { ...draft.value, job, what: '' }
  },
  { immediate: true },
)
const jobs = computed(() => props.view.jobs.map((one) => ({ value: one.job_id, label: one.name })))
const job = computed(
  () => props.view.jobs.find((one) => one.job_id === draft.value.job) ?? props.view.jobs[0] ?? null,
)
const waits = computed(() => job.value?.waits.filter((one) => one.ended === null) ?? [])
const whats = computed(() => [
  ...waits.value.map((one) => ({ value: `wait ${one.wait_id}`, label: `comes another day: ${one.words}` })),
  ...(job.value?.bars ?? []).map((one) => ({
    value: `pin ${one.operations.at(-1)}`,
    label: `pinned: ${one.title.toLowerCase()}`,
  })),
])
const what = computed(() =>
  whats.value.some((one) => one.value === draft.value.what)
    ? draft.value.what
    : (whats.value[0]?.value ?? ''),
)
const isWait = computed(() => what.value.startsWith('wait '))
const people = computed(() => [
  { value: '', label: 'whoever is free' },
  ...props.view.people.map((name) => ({ value: name, label: name })),
])
const ready = computed(() => isWait.value || draft.value.day !== '' || draft.value.person !== '')
function tryIt(): void {
  if (!job.value || !what.value) return
  const named = what.value.slice(what.value.indexOf(' ') + 1)
  void props.now.tryOut(
    isWait.value
      ? { job: job.value.job_id, wait: named, expected: draft.value.day }
      : {
          job: job.value.job_id,
          operation: named as Operation,
          startsAt: draft.value.day ? `${draft.value.day}T${draft.value.at}` : '',
          person: draft.value.person,
        },
  )
}
</script>

<template>
  <form
    id="try-a-change"
    class="grid content-start gap-3"
    aria-labelledby="try-title"
    @submit.prevent="tryIt"
  >
    <h2 id="try-title" class="text-lg">Try a change</h2>
    <ChoiceField
      :model-value="job?.job_id ?? ''"
      label="Job"
      :choices="jobs"
      @update:model-value="(one) => (draft.job = one)"
    />
    <ChoiceField
      :model-value="what"
      label="What"
      :choices="whats"
      @update:model-value="(one) => (draft.what = one)"
    />
    <div class="grid grid-cols-2 gap-3">
      <DateField
        v-model="draft.day"
        :label="isWait ? 'Comes on (empty: nobody knows)' : 'On the day'"
        path="expected"
      />
      <div v-if="!isWait">
        <label class="block text-sm text-ink-soft" for="pin-at">At (the shop's time)</label>
        <input id="pin-at" v-model="draft.at" type="time" step="900" class="field" />
      </div>
    </div>
    <ChoiceField v-if="!isWait" v-model="draft.person" label="By" :choices="people" />
    <button type="submit" class="act justify-self-start" :disabled="now.busy.value || !ready">
      See what it moves
    </button>
  </form>
</template>
