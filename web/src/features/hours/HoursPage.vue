<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'

import { ask } from '@/api/ask'
import { type HoursView, readHours } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import AddWork from './AddWork.vue'
import HoursBar from './HoursBar.vue'
import WorkList from './WorkList.vue'
import { sourceWords } from './words'

/** What the job really took: every operation as planned and as it went, days waited, work that stands on no bill. */
const job = useJob()
const { data, refusal, load } = useLoaded<HoursView>(() => ask(readHours({ path: { job_id: job.jobId } })))
onBeforeUnmount(onChange((changed) => void (changed === job.jobId && load())))
const most = computed(() => Math.max(1, ...(data.value?.operations.map((one) => one.worst_h) ?? [])))
const rows = computed(() =>
  (data.value?.operations ?? []).map((one) => ({ ...one, used: one.agreed_h + one.chargeable_h })),
)
const worked = computed(() => {
  const now = data.value
  return now ? now.agreed_h + now.chargeable_h + now.goodwill_h : 0
})
const waits = computed(() => Object.entries(data.value?.waited_d ?? {}).sort((a, b) => b[1] - a[1]))
const waited = computed(() => waits.value.reduce((sum, one) => sum + one[1], 0))
const hours = (value: number) => value.toFixed(2)
</script>

<template>
  <main class="flex-1 px-5 py-3">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h1 class="text-xl">What it takes and took</h1>
      <RouterLink class="link" :to="{ name: 'route', params: { job: job.jobId } }">Route</RouterLink>
      <RouterLink class="link" :to="{ name: 'calendar', query: { job: job.jobId } }">Calendar</RouterLink>
      <p class="ml-auto text-sm text-ink-soft">
        band: half of them lie there · upright: middle · end: nine of ten stay below · blue: worked · brown:
        goodwill
      </p>
    </div>
    <RefusalNote :refusal="refusal" />
    <template v-if="data">
      <p class="mt-1 text-lg leading-snug">
        Worked <b class="text-2xl">{{ worked.toFixed(1) }} of {{ data.planned_h.toFixed(1) }} h</b>, at worst
        {{ data.worst_h.toFixed(1) }}; waited <b class="text-2xl">{{ waited.toFixed(1) }} days</b>.
        <template v-if="data.goodwill_h > 0">Goodwill {{ data.goodwill_h.toFixed(1) }} h. </template>
        <template v-if="data.chargeable_h > 0"
          >Chargeable beside the agreement {{ data.chargeable_h.toFixed(1) }} h.
        </template>
        <template v-if="data.anomalies_min > 0"
          >{{ Math.round(data.anomalies_min) }} min went into what does not add up.</template
        >
      </p>
      <div
        class="mt-2 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
      >
        <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Hours by operation">
          <table class="w-full">
            <thead class="border-b-2 border-ink text-left text-sm text-ink-soft">
              <tr>
                <th class="py-1 font-normal">Operation</th>
                <th class="font-normal">0 to {{ most.toFixed(0) }} h</th>
                <th class="pr-4 text-right font-normal">middle</th>
                <th class="pr-4 text-right font-normal">worst</th>
                <th class="pr-4 text-right font-normal">worked</th>
                <th class="font-normal">as planned from</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in rows" :key="one.operation" class="border-b border-rule">
                <th
                  scope="row"
                  class="py-1 pr-3 text-left font-normal"
                  :class="one.is_done && 'text-ink-soft'"
                >
                  {{ one.title
                  }}<span v-if="one.units > 1" class="text-ink-soft">, {{ one.units }} holes</span>
                </th>
                <td class="pr-3">
                  <HoursBar
                    :low="one.low_h"
                    :middle="one.middle_h"
                    :high="one.high_h"
                    :worst="one.worst_h"
                    :used="one.used"
                    :goodwill="one.goodwill_h"
                    :most="most"
                  />
                </td>
                <td class="num pr-4 text-right text-ink-soft">{{ hours(one.middle_h) }}</td>
                <td class="num pr-4 text-right">{{ hours(one.worst_h) }}</td>
                <td class="num pr-4 text-right font-bold text-part">
                  {{ one.used + one.goodwill_h > 0 ? hours(one.used + one.goodwill_h) : '' }}
                </td>
                <td class="text-sm text-ink-soft">{{ sourceWords(one) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <div class="grid content-start gap-5">
          <section v-if="waits.length" aria-labelledby="waited">
            <h2 id="waited" class="text-lg">Waited for</h2>
            <ul>
              <li v-for="[cause, days] in waits" :key="cause" class="flex items-center gap-3 py-0.5">
                <span class="w-28">{{ cause }}</span>
                <svg width="160" height="12" aria-hidden="true">
                  <rect
                    x="0"
                    y="1"
                    :width="(160 * days) / Math.max(waited, 1)"
                    height="10"
                    class="fill-unsure"
                  />
                </svg>
                <b class="num">{{ days.toFixed(1) }} d</b>
              </li>
            </ul>
          </section>
          <WorkList :worked="data.worked" :running="data.running" />
          <AddWork :operations="data.operations" @added="load" />
        </div>
      </div>
    </template>
  </main>
</template>
