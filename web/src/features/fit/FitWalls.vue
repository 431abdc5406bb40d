<script setup lang="ts">
import { computed } from 'vue'

import type { FitLevelView, FitView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { bandOf, BOTTOM, depthOf, downDepth, lineOf, scaleOf, TOP, yAt } from './fit'

/** Both walls down the depth, from one even size: where the liner reaches beyond the hole it grips. */
const props = defineProps<{ fit: FitView }>()
const LEFT = 116
const RIGHT = 374
const levels = computed(() => props.fit.levels)
const whole = computed(() => depthOf(props.fit))
/** The size both are drawn from: an even one just below the smallest. [m] */
const from = computed(() => {
  const step = unit.value === 'thou' ? 25.4e-6 : 10e-6
  const least = Math.min(
    ...levels.value.flatMap((one) => [one.bore_m - one.bore_within_m, one.liner_m - one.liner_within_m]),
  )
  return Math.floor(least / step) * step
})
const scale = computed(() =>
  scaleOf(
    levels.value
      .flatMap((one) => [
        one.bore_m - one.bore_within_m,
        one.bore_m + one.bore_within_m,
        one.liner_m - one.liner_within_m,
        one.liner_m + one.liner_within_m,
      ])
      .map((one) => one - from.value),
    LEFT,
    RIGHT,
    unit.value,
  ),
)
const x = (metres: number) => scale.value.x(metres - from.value)
const down = (of: (level: FitLevelView) => number) =>
  downDepth(levels.value, whole.value, (one) => x(of(one)))
const bore = computed(() => down((one) => one.bore_m))
const liner = computed(() => down((one) => one.liner_m))
const boreBand = computed(() =>
  bandOf(
    down((one) => one.bore_m - one.bore_within_m),
    down((one) => one.bore_m + one.bore_within_m),
  ),
)
const linerBand = computed(() =>
  bandOf(
    down((one) => one.liner_m - one.liner_within_m),
    down((one) => one.liner_m + one.liner_within_m),
  ),
)
/** Where the liner is larger than the hole. */
const grips = computed(() =>
  bandOf(
    bore.value,
    bore.value.map(([at, y], index): [number, number] => [Math.max(at, liner.value[index]?.[0] ?? at), y]),
  ),
)
const side = computed(() =>
  bandOf(
    [
      [LEFT, TOP],
      [LEFT, BOTTOM],
    ],
    bore.value,
  ),
)
const block = computed(() =>
  bandOf(liner.value, [
    [RIGHT, TOP],
    [RIGHT, BOTTOM],
  ]),
)
const middle = computed(() => levels.value[Math.floor(levels.value.length / 2)])
const times = computed(() => {
  const [one, other] = [scale.value.x(0), scale.value.x(1e-6)]
  return Math.round(((other - one) * 0.26e-3) / 1e-6 / 100) * 100
})
</script>

<template>
  <g>
    <text :x="LEFT" y="-34" class="fill-ink font-bold" font-size="15">Both walls</text>
    <text :x="LEFT" y="-15" class="fill-ink-soft" font-size="13">
      Ø less {{ lengthText(from, SIZE_WITH[unit]) }} {{ SIZE_WITH[unit] }}, in {{ unit }} · drawn ×
      {{ times }}
    </text>
    <defs>
      <pattern
        id="fit-grips"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V7" class="stroke-part" stroke-width="1.3" />
      </pattern>
    </defs>
    <path :d="side" class="fill-part-wash" />
    <path :d="block" class="fill-iron" />
    <path :d="linerBand" class="fill-part" opacity="0.14" />
    <path :d="boreBand" class="fill-ink" opacity="0.14" />
    <path :d="grips" fill="url(#fit-grips)" />
    <path :d="lineOf(bore)" class="fill-none stroke-ink" stroke-width="2" />
    <path :d="lineOf(liner)" class="fill-none stroke-part" stroke-width="2" />
    <g v-for="level in levels" :key="level.name">
      <circle :cx="x(level.bore_m)" :cy="yAt(level.depth_m, whole)" r="3.6" class="fill-ink" />
      <circle :cx="x(level.liner_m)" :cy="yAt(level.depth_m, whole)" r="3.6" class="fill-part" />
    </g>
    <text
      v-if="middle && fit.grips > 0"
      :x="(x(middle.bore_m) + x(middle.liner_m)) / 2"
      :y="yAt(middle.depth_m, whole) + 26"
      text-anchor="middle"
      font-size="15"
      class="fill-part stroke-paper font-bold"
      stroke-width="4"
      paint-order="stroke"
    >
      grips
    </text>
    <text
      :x="LEFT + 6"
      :y="BOTTOM - 10"
      font-size="13"
      class="fill-ink stroke-paper font-bold"
      stroke-width="4"
      paint-order="stroke"
      >bore of hole {{ fit.hole }}</text
    >
    <text
      :x="RIGHT - 6"
      :y="TOP + 18"
      text-anchor="end"
      font-size="13"
      class="fill-part stroke-paper font-bold"
      stroke-width="4"
      paint-order="stroke"
    >
      outside of {{ fit.liner }}
    </text>
    <g v-for="tick in scale.ticks" :key="tick.text">
      <path :d="`M${tick.x} ${BOTTOM}v6`" class="stroke-ink" />
      <text :x="tick.x" :y="BOTTOM + 20" text-anchor="middle" font-size="13" class="num fill-ink">
        {{ tick.text }}
      </text>
    </g>
  </g>
</template>
