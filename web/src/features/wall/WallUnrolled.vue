<script setup lang="ts">
import { computed } from 'vue'

import type { WallMarkView, WallView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import ClockAxis from './ClockAxis.vue'
import MarkShape from './MarkShape.vue'
import type { Shown } from './shown'
import { acrossOn, bandsOf, evenStep, type Frame, type Spot, spotOf, xOf, yOf } from './unrolled'

/** The wall unrolled: bands of the field fitted through the readings, the readings as rings, marks by their letter. */
const props = defineProps<{
  wall: WallView
  shown: Shown
  depth: number | null
  spot: Spot | null
  /** What is touched is a spot of the wall: no reading takes the finger that is meant for it. */
  marking: boolean
  expanded: boolean
}>()
const emit = defineEmits<{ point: [spot: Spot]; level: [depth: number]; mark: [mark: WallMarkView] }>()

const phone = usePhone()
const wide = computed(() => frame.value.left + frame.value.width + 14)
const UNIT = computed(() => (unit.value === 'µm' ? 1e-6 : 25.4e-6))
const depths = computed(() => [...new Set(props.shown.dots.map((one) => one.depth_m))].sort((a, b) => a - b))
const frame = computed<Frame>(() => {
  const all = [...depths.value, props.wall.ring_top_m ?? 0, props.wall.ring_bottom_m ?? 0]
  return { ...acrossOn(phone.value), top: 54, height: 352, from: 0, to: Math.max(0.02, ...all) + 0.012 }
})
const field = computed(() => {
  const { field: own } = props.shown
  return props.expanded && own?.expanded_m ? { ...own, values_m: own.expanded_m } : own
})
const offset = computed(() => (props.expanded ? 0 : props.shown.offset))
const step = computed(() => {
  const values = (field.value?.values_m ?? [])
    .flat()
    .map((one) => (one === null ? 0 : Math.abs(one - offset.value) / UNIT.value))
  // Bands finer than half of the ± would show scatter.
  const within = Math.max(0, ...props.shown.dots.map((one) => one.expanded_m)) / UNIT.value
  return Math.max(evenStep(Math.max(...values, 0)), within > 0 ? evenStep(within * 4.5) : 0)
})
const bands = computed(() =>
  field.value ? bandsOf(field.value, offset.value, UNIT.value, frame.value, step.value) : [],
)
const tone = (value: number) =>
  props.shown.kind === 'wear' || value < 0 ? 'var(--color-part)' : 'var(--color-act)'
/** What lies on the seam is seen at both ends. */
const dots = computed(() => [
  ...props.shown.dots,
  ...props.shown.dots.filter((one) => one.angle_deg === 0).map((one) => ({ ...one, angle_deg: 360 })),
])
const x = (angle: number) => xOf(frame.value, angle)
const y = (depth: number) => yOf(frame.value, depth)
const dotText = (value: number) =>
  lengthText(value - props.shown.offset, unit.value, { signed: props.shown.kind !== 'wear' })
const travel = computed(() =>
  [
    { at: props.wall.ring_top_m, words: 'top ring' },
    { at: props.wall.ring_bottom_m, words: 'lowest ring' },
  ].flatMap(({ at, words }) => (at === null ? [] : [{ at, words }])),
)
/** Thrust side and the one opposite, each a quarter of the turn. */
const sides = computed(() => {
  const at = props.wall.thrust_deg
  if (at === null) return []
  return [
    { from: at - 45, words: 'thrust side' },
    { from: (at + 135) % 360, words: 'other side' },
  ]
})
function point(event: MouseEvent): void {
  const svg = event.currentTarget as SVGSVGElement
  const matrix = svg.getScreenCTM()
  if (!matrix) return
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  emit('point', spotOf(frame.value, at.x, at.y))
}
</script>

<template>
  <!-- What is pointed at can be typed beside it as well: clock and depths. -->
  <!-- eslint-disable vuejs-accessibility/click-events-have-key-events, vuejs-accessibility/no-static-element-interactions -->
  <svg
    v-legible
    :viewBox="`0 22 ${wide} 412`"
    class="block w-full cursor-crosshair touch-manipulation"
    role="group"
    :aria-label="`The wall of hole ${wall.hole} unrolled: ${shown.words}`"
    @click="point"
  >
    <!-- eslint-enable -->
    <clipPath id="wall-clip">
      <rect :x="frame.left" :y="frame.top" :width="frame.width" :height="frame.height" />
    </clipPath>
    <text x="4" y="44" font-size="13" class="fill-ink-soft">{{ SIZE_WITH[unit] }} deep</text>
    <rect :x="frame.left" :y="frame.top" :width="frame.width" :height="frame.height" class="fill-sheet" />
    <g clip-path="url(#wall-clip)">
      <path
        v-for="(band, at) in bands"
        :key="at"
        :d="band.d"
        :fill="tone(band.value)"
        fill-opacity="0.13"
        :stroke="tone(band.value)"
        :stroke-width="band.place % 2 === 0 ? 1.5 : 0.7"
        stroke-opacity="0.8"
      />
      <path
        v-if="depth !== null"
        :d="`M${frame.left} ${y(depth)}h${frame.width}`"
        class="stroke-act"
        stroke-width="10"
        stroke-opacity="0.16"
      />
      <g v-for="(band, at) in bands" :key="`t${at}`">
        <text
          v-for="(label, number) in band.labels"
          :key="number"
          :x="label.x"
          :y="label.y + 4"
          text-anchor="middle"
          font-size="13"
          font-weight="700"
          paint-order="stroke"
          class="num stroke-paper"
          stroke-width="4"
          :fill="tone(band.value)"
        >
          {{ +band.value.toFixed(3) }}
        </text>
      </g>
    </g>
    <g v-for="line in travel" :key="line.words">
      <path
        :d="`M${frame.left} ${y(line.at)}h${frame.width}`"
        class="stroke-ink"
        stroke-width="1.5"
        stroke-dasharray="12 4 2 4"
      />
      <text
        :x="frame.left + frame.width * 0.41"
        :y="y(line.at) - 5"
        font-size="14"
        paint-order="stroke"
        class="fill-ink stroke-paper"
        stroke-width="4"
      >
        {{ line.words }}
      </text>
    </g>
    <g v-for="side in sides" :key="side.words">
      <path
        :d="`M${x(side.from)} ${frame.top - 4}v-10H${x(side.from + 90)}v10`"
        class="fill-none stroke-ink"
        stroke-width="1.2"
      />
      <text
        :x="x(side.from + 45)"
        :y="frame.top - 20"
        text-anchor="middle"
        font-size="15"
        font-weight="700"
        class="fill-ink"
      >
        {{ side.words }}
      </text>
    </g>
    <g v-for="one in depths" :key="one">
      <text :x="frame.left - 10" :y="y(one) + 5" text-anchor="end" font-size="14" class="num fill-ink">
        {{ lengthText(one, SIZE_WITH[unit], { digits: unit === 'thou' ? 1 : 0 }) }}
      </text>
    </g>
    <circle
      v-for="(dot, at) in dots"
      :key="`d${at}`"
      :cx="x(dot.angle_deg)"
      :cy="y(dot.depth_m)"
      :r="shown.kind === 'radius' ? 1.4 : dot.depth_m === depth ? 4.6 : 3.4"
      class="fill-paper stroke-ink"
      :stroke-width="dot.depth_m === depth ? 2.2 : 1.3"
      :class="marking && 'pointer-events-none'"
      @click.stop="emit('level', dot.depth_m)"
    >
      <title>{{ dot.level }}: {{ dotText(dot.value_m) }} {{ unit }}</title>
    </circle>
    <MarkShape
      v-for="mark in wall.marks"
      :key="mark.finding.finding_id"
      :mark="mark"
      :frame="frame"
      @choose="emit('mark', mark)"
    />
    <rect
      :x="frame.left"
      :y="frame.top"
      :width="frame.width"
      :height="frame.height"
      class="pointer-events-none fill-none stroke-ink"
      stroke-width="1.5"
    />
    <ClockAxis :frame="frame" />
    <path
      v-if="spot"
      :transform="`translate(${x((30 * (spot.hour - 9) + 360) % 360)} ${y(spot.depth)})`"
      d="M-10 0H10M0 -10V10"
      class="stroke-act"
      stroke-width="2.5"
      aria-hidden="true"
    />
  </svg>
</template>
