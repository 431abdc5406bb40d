<script setup lang="ts">
import { computed, ref } from 'vue'

import type { CalendarJobView, CalendarView } from '@/api/generated'

import PromiseDialog from './PromiseDialog.vue'
import type { CalendarNow } from './useCalendar'
import { barWords, clockWords, dayWords, momentWords, percent } from './words'

/** Everything that is laid out for a job in words: what, when, by whom, on what; what it waits for; its promise. */
const props = defineProps<{ view: CalendarView; chosen: CalendarJobView | null; now: CalendarNow }>()
const emit = defineEmits<{ choose: [job: string] }>()
const job = computed(() => props.chosen ?? props.view.jobs[0] ?? null)
const waits = computed(() => job.value?.waits.filter((one) => one.ended === null) ?? [])
const until = (start: string, end: string) =>
  start.slice(0, 10) === end.slice(0, 10) ? clockWords(end) : momentWords(end)
const promising = ref(false)
</script>

<template>
  <section id="job-details" aria-label="In words" class="min-w-0">
    <div class="flex flex-wrap gap-2" role="group" aria-label="Which job">
      <button
        v-for="one in view.jobs"
        :key="one.job_id"
        type="button"
        class="min-h-10 border border-rule px-3 text-sm"
        :class="one.job_id === job?.job_id ? 'border-ink bg-ink text-paper' : ''"
        :aria-pressed="one.job_id === job?.job_id"
        @click="emit('choose', one.job_id)"
      >
        {{ one.name }}
      </button>
    </div>
    <template v-if="job">
      <p class="mt-2">
        <RouterLink class="link" :to="{ name: 'route', params: { job: job.job_id } }">{{
          job.name
        }}</RouterLink>, {{ job.customer }}: ready <b>{{ dayWords(job.ready) }}</b>, nine in ten by
        <b>{{ dayWords(job.offered) }}</b>.
        <template v-if="job.promised">
          Promised {{ dayWords(job.promised) }}<template v-if="job.told"> ({{ job.told }})</template>, kept
          {{ percent(job.kept ?? 0) }}.
        </template>
        <button type="button" class="link ml-2" @click="promising = true">
          {{ job.promised ? 'Promise another day' : 'Promise a day' }}
        </button>
      </p>
      <p v-for="one in waits" :key="one.wait_id" class="text-unsure">
        Waits for {{ one.words }},
        {{ one.expected ? `expected ${dayWords(one.expected)}` : `usually ${one.usual_days} days`
        }}<template v-if="one.first_expected && one.first_expected !== one.expected">
          (first said {{ dayWords(one.first_expected) }})</template
        >.
      </p>
      <div
        class="relative overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="`${job.name}, piece by piece`"
      >
        <table class="mt-2 w-full text-sm">
          <thead class="border-b border-ink text-left text-ink-soft">
            <tr>
              <th class="py-1 pr-3 font-normal">When</th>
              <th class="pr-3 font-normal">What</th>
              <th class="pr-3 font-normal">By</th>
              <th class="pr-3 font-normal">On</th>
              <th class="font-normal"><span class="sr-only">Pin</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="bar in job.bars" :key="`${bar.start}${bar.title}`" class="border-b border-rule">
              <td class="num py-1 pr-3 whitespace-nowrap">
                {{ momentWords(bar.start) }}–{{ until(bar.start, bar.end) }}
              </td>
              <td class="pr-3">
                {{ barWords(bar) }}<template v-if="bar.shares_setup"> (shares the set-up)</template>
              </td>
              <td class="pr-3">{{ bar.person }}</td>
              <td class="pr-3">{{ bar.machine }}</td>
              <td>
                <button
                  v-if="bar.pinned"
                  type="button"
                  class="link"
                  @click="now.takePinAway(job.job_id, bar.operations.at(-1) ?? bar.operations[0]!)"
                >
                  take the pin away
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <PromiseDialog v-if="job && promising" :job="job" :now="now" message="" @close="promising = false" />
  </section>
</template>
