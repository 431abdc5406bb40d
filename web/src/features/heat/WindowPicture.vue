<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'

import type { WindowView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { FRAME, rightOf, windowChart } from './chart'

/** Clearance against seconds out of the cold: what drops freely, needs a push or grabs, and the band of a window. */
const props = defineProps<{ window: WindowView; wanted: number; height: number }>()
const step = computed(() => (unit.value === 'thou' ? 25.4e-6 : 1e-6))
const narrow = useMediaQuery('(max-width: 640px)')
const right = computed(() => rightOf(narrow.value))
const chart = computed(() => windowChart(props.window, props.wanted, step.value, right.value))
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
const x = (seconds: number) => Math.min(right.value, chart.value.x(seconds))
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${right + 12} ${height}`"
    class="block w-full"
    role="img"
    aria-label="Clearance against seconds out of the cold"
  >
    <rect
      :x="FRAME.left"
      :y="FRAME.top"
      :width="right - FRAME.left"
      :height="chart.y(wanted) - FRAME.top"
      class="fill-track"
    />
    <rect
      :x="FRAME.left"
      :y="chart.y(wanted)"
      :width="right - FRAME.left"
      :height="chart.y(0) - chart.y(wanted)"
      class="fill-act-wash"
    />
    <rect
      :x="FRAME.left"
      :y="chart.y(0)"
      :width="right - FRAME.left"
      :height="FRAME.bottom - chart.y(0)"
      class="fill-iron"
    />
    <g v-for="tick in chart.lengths" :key="tick">
      <path :d="`M${FRAME.left} ${chart.y(tick)}H${right}`" class="stroke-sheet" stroke-width="1.2" />
      <text :x="FRAME.left - 8" :y="chart.y(tick) + 5" text-anchor="end" font-size="15" class="num fill-ink">
        {{ small(tick).replace(/\.0$/, '') }}
      </text>
    </g>
    <text :x="FRAME.left - 8" :y="FRAME.top - 1" text-anchor="end" font-size="13" class="fill-ink-soft">
      {{ unit }}
    </text>
    <path :d="chart.band" class="fill-part opacity-25" />
    <path :d="chart.likely" class="stroke-part" fill="none" stroke-width="3.4" />
    <path :d="`M${FRAME.left} ${chart.y(0)}H${right}`" class="stroke-ink" stroke-width="1.6" />
    <path
      :d="`M${FRAME.left} ${chart.y(wanted)}H${right}`"
      class="stroke-ink"
      stroke-width="1.8"
      stroke-dasharray="6 5"
    />
    <g font-size="16" class="font-bold">
      <text :x="FRAME.left + 10" :y="chart.y(wanted) - 9" class="fill-in">drops freely</text>
      <text :x="FRAME.left + 10" :y="chart.y(0) - 9" class="fill-unsure">needs a push</text>
      <text :x="FRAME.left + 10" :y="FRAME.bottom - 9" class="fill-out">grabs</text>
    </g>
    <slot :chart="chart" :x="x" :right="right" :narrow="narrow" />
    <g v-for="tick in chart.seconds" :key="tick">
      <path :d="`M${chart.x(tick)} ${FRAME.bottom}v5`" class="stroke-ink" />
      <text
        :x="chart.x(tick)"
        :y="FRAME.bottom + 20"
        text-anchor="middle"
        font-size="15"
        class="num fill-ink"
      >
        {{ tick }}
      </text>
    </g>
    <text :x="right" :y="FRAME.bottom + 38" text-anchor="end" font-size="13" class="fill-ink-soft">
      seconds out of the cold
    </text>
  </svg>
</template>
