<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import { unit } from '@/shared/state/preferences'

import LineKeys from './LineKeys.vue'
import { axisOver, DASHES, FILLS, type PlotShown, STROKES } from './pictures'

/** Lines over one axis: what was read, the truth, limits, and the points that matter by name. */
const props = defineProps<{ plot: PlotShown }>()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
/** In a narrow column it is drawn anew, as wide as that is. */
const isNarrow = computed(() => width.value > 0 && width.value < 480)
const WIDE = computed(() => (isNarrow.value ? 340 : 620))
const HIGH = 300
const LEFT = 52
const RIGHT = 26
const across = computed(() =>
  axisOver(
    [...props.plot.lines.flatMap((line) => line.xs), ...props.plot.spots.map((spot) => spot.x)],
    props.plot.across,
    unit.value,
    isNarrow.value ? 4 : 7,
  ),
)
const up = computed(() =>
  axisOver(
    [
      ...props.plot.lines.flatMap((line) => line.ys),
      ...props.plot.spots.map((spot) => spot.y),
      ...props.plot.levels.map((level) => level.y),
    ],
    props.plot.up,
    unit.value,
  ),
)
const x = (value: number) =>
  LEFT +
  ((value - across.value.low) / (across.value.high - across.value.low || 1)) * (WIDE.value - LEFT - RIGHT)
const y = (value: number) =>
  HIGH - 34 - ((value - up.value.low) / (up.value.high - up.value.low || 1)) * (HIGH - 58)
const paths = computed(() =>
  props.plot.lines.map((line) => ({
    ...line,
    d: `M${line.xs.map((value, at) => `${x(value).toFixed(1)} ${y(line.ys[at] ?? 0).toFixed(1)}`).join('L')}`,
  })),
)
/** Names lean inward where a point lies near the right edge. */
const anchor = (value: number) => (x(value) > WIDE.value * 0.7 ? 'end' : 'start')
</script>

<template>
  <figure ref="frame">
    <figcaption class="flex flex-wrap justify-between gap-x-3 font-bold">
      {{ plot.title }}<span class="font-normal text-ink-soft">{{ plot.note }}</span>
    </figcaption>
    <svg
      v-legible
      :viewBox="`0 0 ${WIDE} ${HIGH + 6}`"
      class="block w-full"
      role="img"
      :aria-label="`${plot.title}: ${plot.up_name} over ${plot.across_name}. ${plot.spots.map((spot) => spot.name).join(', ')}`"
    >
      <g v-for="tick in up.ticks" :key="tick.at">
        <path :d="`M${LEFT} ${y(tick.at)}H${WIDE - RIGHT}`" class="stroke-rule" stroke-width="1" />
        <text
          :x="LEFT - 7"
          :y="y(tick.at) + 5"
          text-anchor="end"
          class="fill-ink-soft font-mono"
          font-size="14"
        >
          {{ tick.words }}
        </text>
      </g>
      <text
        v-for="tick in across.ticks"
        :key="`x${tick.at}`"
        :x="x(tick.at)"
        :y="HIGH - 16"
        text-anchor="middle"
        class="fill-ink-soft font-mono"
        font-size="14"
      >
        {{ tick.words }}
      </text>
      <path :d="`M${LEFT} ${HIGH - 33}H${WIDE - RIGHT}`" class="stroke-ink" stroke-width="1.5" />
      <text x="4" y="14" class="fill-ink-soft" font-size="14">{{ plot.up_name }} {{ up.name }}</text>
      <text :x="WIDE - 2" :y="HIGH - 1" text-anchor="end" class="fill-ink-soft" font-size="14">
        {{ plot.across_name }} {{ across.name }}
      </text>
      <g v-for="level in plot.levels" :key="level.name">
        <path
          :d="`M${LEFT} ${y(level.y)}H${WIDE - RIGHT}`"
          :class="STROKES[level.tone]"
          stroke-width="2"
          stroke-dasharray="3 4"
        />
        <text
          :x="WIDE - RIGHT - 2"
          :y="y(level.y) - 5"
          text-anchor="end"
          :class="FILLS[level.tone]"
          class="stroke-paper"
          stroke-width="4"
          paint-order="stroke"
          font-size="14"
        >
          {{ level.name }}
        </text>
      </g>
      <path
        v-for="line in paths"
        :key="line.name"
        :d="line.d"
        fill="none"
        :class="STROKES[line.tone]"
        :stroke-width="line.tone === 'truth' ? 3 : 2.2"
        :stroke-dasharray="DASHES[line.tone]"
      />
      <g v-for="(spot, index) in plot.spots" :key="spot.name + spot.x">
        <circle :cx="x(spot.x)" :cy="y(spot.y)" r="6" :class="FILLS[spot.tone]" />
        <text
          :x="x(spot.x) + (anchor(spot.x) === 'end' ? -10 : 10)"
          :y="y(spot.y) + (index % 2 ? 20 : -9)"
          :text-anchor="anchor(spot.x)"
          :class="FILLS[spot.tone]"
          class="stroke-paper"
          stroke-width="4"
          paint-order="stroke"
          font-size="14"
          font-weight="700"
        >
          {{ spot.name }}
        </text>
      </g>
    </svg>
    <LineKeys v-if="plot.lines.length > 1" :lines="plot.lines" />
  </figure>
</template>
