<script setup lang="ts">
import { computed } from 'vue'

import type { HoleView } from '@/api/generated'
import LimitRing from '@/shared/charts/LimitRing.vue'
import { hourText } from '@/shared/format/clock'
import { lengthText, smallText } from '@/shared/format/lengths'
import { NUMBER_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import type { ClockLens } from '@/shared/subjects'

import type { Face } from './faces'

/** The chosen hole on a small screen: its ring with the number at each clock position beside it. */
const props = defineProps<{
  hole: HoleView
  face: Face
  lens: ClockLens
  hour: number | null
}>()
const digits = useGaugeDigits()
const limits = computed(() => [props.hole.least_m, props.hole.greatest_m])
const valueText = (metres: number) =>
  lengthText(metres, unit.value, { signed: true, limits: limits.value, digits: digits.small('protrusion') })
/** Where the number of a position stands: over, beside or under the ring, in shares of the picture. */
const placed = computed(() =>
  props.hole.marks
    .filter((mark) => !mark.past)
    .map((mark) => {
      const turn = (mark.hour / 12) * 2 * Math.PI
      return { ...mark, left: 50 + 43 * Math.sin(turn), top: 50 - 42 * Math.cos(turn) }
    }),
)
</script>

<template>
  <div class="relative mx-auto aspect-[5/4] w-full max-w-64">
    <svg viewBox="-80 -64 160 128" class="absolute inset-0 h-full w-full" aria-hidden="true">
      <g transform="scale(0.78)">
        <LimitRing
          :number="hole.number"
          :least="face.ring.least"
          :greatest="face.ring.greatest"
          :marks="face.ring.marks"
          :expected="face.ring.expected"
          :chosen-hour="hour"
          unnumbered
        />
      </g>
    </svg>
    <p class="absolute inset-0 flex flex-col items-center justify-center leading-none" aria-hidden="true">
      <b class="num text-lg">{{ face.value }}</b>
      <span
        v-if="lens === 'protrusion' && hole.mean_expanded_m !== null"
        class="num mt-0.5 rounded bg-sheet/85 px-1 text-xs text-ink-soft"
      >
        {{ smallText(hole.mean_m ?? 0, hole.mean_expanded_m, unit, { limits }).replace(/^[^±]*/, '') }}
      </span>
    </p>
    <template v-if="lens === 'protrusion'">
      <p
        v-for="mark in placed"
        :key="mark.hour"
        class="absolute -translate-x-1/2 -translate-y-1/2 text-center text-xs leading-tight"
        :style="{ left: `${mark.left}%`, top: `${mark.top}%` }"
      >
        <span class="text-ink-soft">{{ hourText(mark.hour) }}</span>
        <b class="num block text-base" :class="NUMBER_TONE[mark.state]">{{ valueText(mark.mean_m) }}</b>
      </p>
    </template>
  </div>
</template>
