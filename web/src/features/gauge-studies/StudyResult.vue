<script setup lang="ts">
import { computed } from 'vue'

import type { ComponentsView, StudyResult, StudyView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { CAPABILITY_TONE } from '@/shared/format/tones'

import StudyPlot from './StudyPlot.vue'

/** What was found: gauge, hand and part, and what that means for the window. */
const props = defineProps<{ study: StudyView; result: StudyResult }>()
const model = computed<ComponentsView>(() =>
  props.result.full_holds ? props.result.full : props.result.pooled,
)
const fine = (metres: number) => lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 3 : 2 })
const share = (metres: number) =>
  model.value.total_m ? Math.round(100 * (metres / model.value.total_m) ** 2) : 0
const rows = computed(
  () =>
    [
      ['the gauge repeats within', model.value.repeatability_m, props.result.ranges.repeatability_m],
      ['people differ by', model.value.reproducibility_m, props.result.ranges.reproducibility_m],
      ['gauge and people together', model.value.gauge_m, props.result.ranges.gauge_m],
      ['parts differ by', model.value.part_m, props.result.ranges.part_m],
    ] as [string, number, number][],
)
const verdict = computed(() => {
  const percent = model.value.percent_of_tolerance ?? model.value.percent_of_total
  const of = model.value.percent_of_tolerance === null ? 'of all spread' : 'of the window'
  const { capability } = model.value
  const said = capability === 'wrong tool' ? 'the wrong tool for it' : capability
  return { tone: CAPABILITY_TONE[capability], words: `takes ${percent.toFixed(0)} % ${of}: ${said}` }
})
const interaction = computed(() => {
  const p = props.result.interaction_p
  if (p === null) return 'Every trial repeated exactly: finer steps would show more.'
  const chance = p < 0.001 ? 'less than 0.1 %' : `${(100 * p).toFixed(1)} %`
  return props.result.full_holds
    ? `People read some parts differently from one another (chance ${chance}): look at how each of them holds the gauge. ` +
        `Averages and ranges cannot see that: by them the gauge takes ${props.result.ranges.percent_of_total.toFixed(0)} % ` +
        `of all spread, it takes ${model.value.percent_of_total.toFixed(0)} %.`
    : `No sign that people differ from part to part (chance ${chance}): that is counted as repeatability.`
})
</script>

<template>
  <section class="mt-4 grid gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]" aria-label="Result">
    <div>
      <p class="text-2xl">
        {{ study.gauge.name }} <b :class="verdict.tone">{{ verdict.words }}</b>
      </p>
      <p v-if="model.categories !== null" class="pt-1">
        It tells <b class="num">{{ model.categories }}</b> classes of such parts apart<template
          v-if="model.categories < 5"
          >; five are wanted, by common practice</template
        >.
      </p>
      <table class="mt-3 w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-1 font-normal">one standard deviation</th>
            <th scope="col" class="text-right font-normal">[{{ unit }}]</th>
            <th scope="col" class="pl-3 text-right font-normal">by averages and ranges</th>
            <th scope="col" class="w-44 pl-4 font-normal">share of the variance</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[name, metres, byRanges] in rows" :key="name" class="border-b border-rule">
            <th scope="row" class="py-1.5 text-left font-normal">{{ name }}</th>
            <td class="num text-right">{{ fine(metres) }}</td>
            <td class="num pl-3 text-right text-ink-soft">{{ fine(byRanges) }}</td>
            <td class="pl-4">
              <span class="flex items-center gap-2"
                ><span class="h-3 bg-part" :style="{ width: `${Math.max(2, share(metres))}px` }" /><span
                  class="num text-sm"
                  >{{ share(metres) }} %</span
                ></span
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p class="pt-3">{{ interaction }}</p>
      <p class="pt-1 text-sm text-ink-soft">
        Analysis of variance with parts and people crossed; six standard deviations against the window.
      </p>
    </div>
    <StudyPlot :study="study" :result="result" />
  </section>
</template>
