<script setup lang="ts">
import { computed } from 'vue'

import type { BoreView } from '@/api/generated'
import { acrossOf, scaleOf } from '@/shared/charts/wall'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { markTone, NUMBER_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'

import type { BoreLevelAt } from './useBores'

/** The diameters of one hole at one level, axis by axis between the limits, and what they say together. */
const props = defineProps<{ bore: BoreView; level: BoreLevelAt; axis: number | null; wide: boolean }>()
const emit = defineEmits<{ choose: [axis: number] }>()
const WIDTH = 92

const survey = computed(() => props.bore.survey)
const scale = computed(() => scaleOf(survey.value))
const rows = computed(() =>
  survey.value.places
    .filter((row) => Number(row.place.level_um) === Number(props.level.depth_um))
    .sort((a, b) => (a.place.axis_deg ?? 0) - (b.place.axis_deg ?? 0)),
)
const across = (value: number) => acrossOf(value, scale.value, WIDTH)
const bars = computed(() =>
  [scale.value.least, scale.value.greatest].map((limit) => (limit === null ? null : across(limit).x)),
)
/** A size is written as its distance from the nominal: that is what a dial shows. */
function shown(value: number): string {
  const { nominal_m } = survey.value
  if (nominal_m === null) return lengthText(value, SIZE_WITH[unit.value])
  return lengthText(value - nominal_m, unit.value, { signed: true })
}
const form = computed(() =>
  survey.value.form?.levels.find((one) => Math.abs(one.depth_m - props.level.depth_m) < 1e-9),
)
const told = (kind: string) =>
  survey.value.told.find((one) => one.kind === kind && one.where === props.level.name) ?? null
const round = computed(() =>
  survey.value.rules.find((r) => r.rule === 'out of round' && r.where === props.level.name),
)
const widest = computed(() => told('ovality'))
/** Told on the diameter and per side, and where it is widest. */
const sides = computed(() => {
  const round_m = form.value?.out_of_round_m ?? 0
  const at = widest.value?.direction_deg
  const where = at == null ? '' : `, widest at ${Math.round(at)}°`
  return `on the diameter, ${lengthText(round_m / 2, unit.value)} per side${where}`
})
</script>

<template>
  <section class="min-w-0 pt-1" :aria-label="`Hole ${bore.hole} at ${level.name}`">
    <h3 class="font-bold">
      Hole {{ bore.hole }} at {{ level.name }}
      <RouterLink
        class="link font-normal"
        :to="{ name: 'wall', params: { hole: String(bore.hole) }, query: { of: survey.quantity } }"
        >its wall</RouterLink
      >
    </h3>
    <p v-if="!survey.part.can_read" class="text-sm text-ink-soft">{{ survey.part.reason }}</p>
    <ul :class="wide && 'grid gap-x-6 sm:grid-cols-2'">
      <li v-for="row in rows" :key="row.place.axis_deg ?? 0">
        <button
          type="button"
          class="flex min-h-9 w-full items-center gap-2 text-left"
          :class="row.place.axis_deg === axis && 'bg-act-wash'"
          :aria-pressed="row.place.axis_deg === axis"
          @click="emit('choose', row.place.axis_deg ?? 0)"
        >
          <svg v-legible width="18" height="18" viewBox="-9 -9 18 18" aria-hidden="true">
            <path
              d="M-7 0H7"
              class="stroke-ink"
              stroke-width="2"
              :transform="`rotate(${row.place.axis_deg ?? 0})`"
            />
          </svg>
          <span class="num w-10">{{ row.place.axis_deg }}°</span>
          <svg :width="WIDTH" height="18" aria-hidden="true">
            <rect
              v-if="bars[0] != null && bars[1] != null"
              :x="bars[0]"
              y="2"
              :width="bars[1] - bars[0]"
              height="14"
              class="fill-track"
            />
            <path v-if="bars[0] != null" :d="`M${bars[0]} 1V17`" class="stroke-ink" stroke-dasharray="3 2" />
            <path v-if="bars[1] != null" :d="`M${bars[1]} 1V17`" class="stroke-ink" stroke-width="1.5" />
            <g v-if="row.value_m !== null" :class="markTone(row)">
              <circle
                :cx="Math.min(WIDTH - 5, Math.max(5, across(row.value_m).x))"
                cy="9"
                r="4.2"
                :fill="row.state === 'cannot tell' || row.doubtful ? 'var(--color-paper)' : 'currentColor'"
                stroke="currentColor"
                stroke-width="2"
              />
            </g>
          </svg>
          <b v-if="row.value_m !== null" class="num ml-auto" :class="row.state && NUMBER_TONE[row.state]">{{
            shown(row.value_m)
          }}</b>
          <span v-else class="ml-auto text-sm text-ink-soft">{{
            row.unreadable || (row.past_m === null ? 'not read' : `was ${shown(row.past_m)}`)
          }}</span>
          <span class="num w-12 text-right text-sm text-ink-soft">{{
            row.expanded_m === null ? '' : `±${uncertaintyText(row.expanded_m, unit)}`
          }}</span>
        </button>
      </li>
    </ul>
    <p v-if="form?.out_of_round_m != null" class="mt-1 border-t border-rule pt-1 text-sm leading-snug">
      out of round
      <b class="num" :class="round && NUMBER_TONE[round.state]">{{
        lengthText(form.out_of_round_m, unit)
      }}</b><template v-if="round"
        ><span class="num"> ±{{ uncertaintyText(round.expanded_m, unit) }}</span></template
      >
      {{ sides }}
    </p>
  </section>
</template>
