<script setup lang="ts">
import { computed } from 'vue'

import type { SurveyView } from '@/api/generated'
import { digitsFor, SIZE_WITH, sizeText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** A liner started by hand: how far it stands in its hole, against the quarter and the third of its length. */
const props = defineProps<{ survey: SurveyView }>()
const WIDTH = 420
const HEIGHT = 360
const DECK = 190
const DEEP = 150
const value = computed(() => props.survey.places[0]?.value_m ?? null)
const length = computed(() => props.survey.nominal_m)
const shown = computed(() => ({
  digits: digitsFor(Number(props.survey.setup?.gauge.resolution_um ?? 0) / 1e6, SIZE_WITH[unit.value]),
}))
const share = computed(() =>
  value.value !== null && length.value ? Math.min(1, Math.max(0, value.value / length.value)) : null,
)
const foot = computed(() => DECK + DEEP * (share.value ?? 0))
const bars = [
  { at: 1 / 4, words: 'a quarter' },
  { at: 1 / 3, words: 'a third' },
]
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    aria-label="The liner started by hand"
    class="h-auto w-full max-w-xl"
  >
    <path
      :d="`M30 ${DECK}H110V${HEIGHT - 8}H30Z M290 ${DECK}H370V${HEIGHT - 8}H290Z`"
      class="fill-iron stroke-ink-soft"
    />
    <rect x="110" :y="DECK + DEEP / 4" width="180" :height="DEEP / 12" class="fill-track" />
    <g v-if="share !== null">
      <path
        :d="`M112 ${foot - DEEP}H124V${foot}H112Z M276 ${foot - DEEP}H288V${foot}H276Z`"
        class="fill-part-wash stroke-part"
        stroke-width="1.5"
      />
      <path :d="`M112 ${foot}H288`" class="stroke-act" stroke-width="3" />
      <text x="200" :y="foot + 22" text-anchor="middle" font-size="18" font-weight="700" class="num fill-ink">
        {{ Math.round(share * 100) }} %
      </text>
    </g>
    <path :d="`M20 ${DECK}H380`" class="stroke-ink" stroke-width="2" />
    <text x="34" :y="DECK - 8" font-size="14" class="fill-ink-soft">deck</text>
    <g v-for="(bar, index) in bars" :key="bar.words">
      <path :d="`M110 ${DECK + DEEP * bar.at}H300`" class="stroke-ink" stroke-width="2" />
      <text x="306" :y="DECK + DEEP * bar.at + (index ? 14 : -2)" font-size="14" class="fill-ink">
        {{ bar.words }}
      </text>
    </g>
    <text x="200" y="26" text-anchor="middle" font-size="15" class="fill-ink-soft">
      {{
        length === null
          ? 'the card does not say how long the liner is'
          : value === null
            ? `of ${sizeText(length, unit, null, shown)}`
            : `${sizeText(value, unit, null, shown)} of ${sizeText(length, unit, null, shown)}`
      }}
    </text>
  </svg>
</template>
