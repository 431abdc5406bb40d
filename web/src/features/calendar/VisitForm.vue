<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { addVisit, type FloorStrip, type Operation, type ShopTimeView, type VisitView } from '@/api/generated'
import { newId } from '@/shared/newId'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

import { momentWords } from './words'

/** A machinist who comes from elsewhere: for which work of which job, when, and what he needs ready. */
const props = defineProps<{ visits: readonly VisitView[]; jobs: readonly FloorStrip[] }>()
const emit = defineEmits<{ added: [now: ShopTimeView]; back: [visit: string] }>()
const DOES: readonly { value: Operation; label: string }[] = [
  { value: 'cut', label: 'cut counterbores' },
  { value: 'bore', label: 'bore' },
  { value: 'hone', label: 'hone' },
  { value: 'deck', label: 'deck the block' },
  { value: 'align', label: 'align-hone the mains' },
]
const NEEDS = 'block on its stand, head-bolt holes chased, light and power, chips collected, somebody to hold'
const draft = ref<Record<'name' | 'job' | 'day' | 'from' | 'until' | 'needs', string> & { does: Operation }>({
  name: '',
  job: '',
  does: 'cut',
  day: '',
  from: '08:00',
  until: '17:00',
  needs: NEEDS,
})
const choices = computed(() => [
  { value: '', label: 'choose the job' },
  ...props.jobs.map((one) => ({ value: one.job.job_id, label: one.job.name })),
])
const form = useForm()
const save = () =>
  form.send(async () => {
    const { name, job, does, day, from, until, needs } = draft.value
    const now = await ask(
      addVisit({
        body: {
          visit_id: newId(),
          name,
          job_id: job,
          operations: [does],
          starts_at: `${day}T${from}`,
          ends_at: `${day}T${until}`,
          needs: needs
            .split(',')
            .map((one) => one.trim())
            .filter(Boolean),
          person_id: personId.value,
        },
      }),
    )
    draft.value = { ...draft.value, name: '', job: '', day: '' }
    emit('added', now)
  })
</script>

<template>
  <section aria-labelledby="visits-title">
    <h2 id="visits-title" class="text-lg">Visits</h2>
    <ul class="mb-3">
      <li v-for="one in visits" :key="one.visit_id" class="border-b border-rule py-1">
        <div class="flex gap-3">
          <b>{{ one.name }}</b> {{ momentWords(one.starts_at) }}, {{ one.operations.join(', ') }}
          <button type="button" class="link ml-auto" @click="emit('back', one.visit_id)">take back</button>
        </div>
        <p class="text-sm text-ink-soft">needs ready: {{ one.needs.join(', ') }}</p>
      </li>
    </ul>
    <form class="grid grid-cols-2 gap-3" aria-label="A visit" @submit.prevent="save">
      <TextField v-model="draft.name" label="Who comes" path="name" />
      <ChoiceField v-model="draft.job" label="For which job" :choices="choices" path="job_id" />
      <ChoiceField v-model="draft.does" label="To do what" :choices="DOES" path="operations" />
      <DateField v-model="draft.day" label="Day" path="starts_at" />
      <div>
        <label class="block text-sm text-ink-soft" for="visit-from">From</label>
        <input id="visit-from" v-model="draft.from" type="time" class="field" />
      </div>
      <div>
        <label class="block text-sm text-ink-soft" for="visit-until">Until</label>
        <input id="visit-until" v-model="draft.until" type="time" class="field" />
      </div>
      <TextField v-model="draft.needs" class="col-span-2" long label="What he needs ready" path="needs" />
      <button
        type="submit"
        class="act justify-self-start"
        :disabled="form.busy.value || !draft.day || !draft.job"
      >
        Add the visit
      </button>
    </form>
    <RefusalNote
      :refusal="elsewhere(form.refusal.value, ['name', 'job_id', 'operations', 'starts_at', 'needs'])"
    />
  </section>
</template>
