<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'

import type { MatchingView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { arcs, frameOf, pictureOf, widthOf } from './picture'

/** Holes side by side: the liner that is in and how it stands, the one that goes there, ledges, shims, moves as arcs. */
const props = defineProps<{ view: MatchingView }>()
const narrow = useMediaQuery('(max-width: 640px)')
const wide = computed(() => widthOf(narrow.value))
const frame = computed(() => frameOf(props.view))
const chart = computed(() => pictureOf(props.view, wide.value))
const moves = computed(() => arcs(props.view, wide.value))
const digits = computed(() => (unit.value === 'thou' ? 1 : 0))
const small = (metres: number) => lengthText(metres, unit.value, { digits: digits.value, signed: true })
const size = (metres: number) =>
  lengthText(metres, unit.value === 'thou' ? 'inch' : 'mm', { digits: unit.value === 'thou' ? 4 : 2 })
const deep = (metres: number) =>
  lengthText(metres, unit.value === 'thou' ? 'inch' : 'mm', { digits: unit.value === 'thou' ? 4 : 3 })
const FILL = { in: 'fill-part', out: 'fill-out', 'cannot tell': 'fill-unsure' } as Record<string, string>
const limits = computed(() => [
  ...new Set(
    props.view.holes.flatMap((one) => [one.least_m, one.greatest_m]).filter((one) => Math.abs(one) < 0.9),
  ),
])
const wave = computed(() => {
  const steps = Math.ceil((wide.value - frame.value.left + 12) / 24)
  return `M${frame.value.left - 6} ${frame.value.wave}${'q6 -6 12 0t12 0'.repeat(steps)}`
})
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${wide} ${frame.height}`"
    class="block w-full"
    role="img"
    aria-label="How each liner stands now and then"
  >
    <template v-if="view.of === 'protrusion'">
      <rect
        :x="frame.left"
        :y="chart.y(0)"
        :width="wide - frame.left"
        :height="frame.bottom - chart.y(0)"
        class="fill-iron"
      />
      <g v-for="row in chart.depths" :key="row.metres">
        <text :x="frame.left - 8" :y="row.y + 5" text-anchor="end" font-size="14" class="num fill-ink-soft">
          {{ deep(row.metres) }}
        </text>
      </g>
    </template>
    <g v-for="limit in limits" :key="limit">
      <text :x="frame.left - 8" :y="chart.y(limit) + 5" text-anchor="end" font-size="15" class="num fill-ink">
        {{ lengthText(limit, unit, { digits }) }}
      </text>
    </g>
    <g v-for="arc in moves" :key="arc.liner">
      <path :d="arc.d" class="stroke-part" fill="none" stroke-width="2.6" />
      <path :d="arc.head" class="fill-part" />
      <text :x="arc.x" :y="arc.y - 5" text-anchor="middle" font-size="15" class="fill-part font-bold">
        {{ arc.words }}
      </text>
    </g>
    <g v-for="col in chart.columns" :key="col.hole">
      <rect
        :x="col.x - col.half - 3"
        :y="col.greatest"
        :width="col.half * 2 + 6"
        :height="col.least - col.greatest"
        class="fill-track"
      />
      <path
        v-for="edge in [col.least, col.greatest]"
        :key="edge"
        :d="`M${col.x - col.half - 3} ${edge}h${col.half * 2 + 6}`"
        class="stroke-ink"
        stroke-width="1.6"
        stroke-dasharray="6 5"
      />
      <rect
        v-if="view.of === 'protrusion'"
        :x="col.x - col.half - 3"
        :y="chart.y(0)"
        :width="col.half * 2 + 6"
        :height="Math.max(col.ledge, col.cut ?? 0) - chart.y(0)"
        class="fill-paper stroke-ink-soft"
        stroke-width="1.4"
      />
      <path
        v-if="col.cut !== null"
        :d="`M${col.x - col.half - 3} ${col.ledge}h${col.half * 2 + 6}`"
        class="stroke-ink-soft"
        stroke-width="1.4"
        stroke-dasharray="2 4"
      />
      <text :x="col.x" :y="frame.top - 6" text-anchor="middle" font-size="18" class="fill-ink font-bold">
        {{ col.hole }}
      </text>
      <g v-if="col.now">
        <rect
          :x="col.now.x"
          :y="col.now.y"
          :width="col.now.wide"
          :height="col.now.bottom - col.now.y"
          class="fill-none stroke-part"
          stroke-width="2"
          stroke-dasharray="4 4"
        />
        <circle
          :cx="col.now.x + col.now.wide / 2"
          :cy="col.now.y"
          r="5.5"
          :class="FILL[col.now.stands.state] ?? 'fill-ink'"
        />
      </g>
      <rect
        :x="col.then.x"
        :y="col.then.y"
        :width="col.then.wide"
        :height="col.then.bottom - col.then.y"
        class="fill-part-wash stroke-part"
        stroke-width="2.4"
      />
      <g v-if="col.shim">
        <rect
          :x="col.then.x"
          :y="col.shim.y"
          :width="col.then.wide"
          :height="col.shim.tall"
          class="fill-ink"
        />
        <text
          v-if="!narrow && col.shim.tall > 30"
          :x="col.then.x + col.then.wide / 2"
          :y="col.shim.y + col.shim.tall / 2 + 5"
          text-anchor="middle"
          font-size="14"
          class="num fill-paper font-bold"
        >
          {{ size(col.shim.size) }}
        </text>
      </g>
      <path
        :d="`M${col.then.x + col.then.wide / 2} ${chart.y(col.then.value + col.then.expanded)}V${chart.y(col.then.value - col.then.expanded)}`"
        class="stroke-ink"
        stroke-width="1.6"
      />
      <circle
        v-if="col.then.state"
        :cx="col.then.x + col.then.wide / 2"
        :cy="col.then.y"
        r="6.5"
        :class="FILL[col.then.state] ?? 'fill-ink'"
      />
      <text
        :x="col.then.x + col.then.wide / 2"
        :y="frame.deck - 8"
        text-anchor="middle"
        font-size="16"
        class="fill-part font-bold"
      >
        {{ col.then.liner }}
      </text>
      <text
        v-if="col.now && col.now.stands.liner !== col.then.liner && !narrow"
        :x="col.now.x + col.now.wide / 2"
        :y="frame.deck - 8"
        text-anchor="middle"
        font-size="14"
        class="fill-ink-soft"
      >
        {{ col.now.stands.liner }}
      </text>
    </g>
    <path :d="`M${frame.left - 6} ${chart.y(0)}H${frame.left + 2}`" class="stroke-ink" stroke-width="1.6" />
    <text :x="frame.left - 8" :y="chart.y(0) + 5" text-anchor="end" font-size="15" class="fill-ink-soft">
      {{ view.of === 'press' ? small(0) : 'deck' }}
    </text>
    <template v-if="view.of === 'protrusion'">
      <path :d="wave" class="stroke-paper" fill="none" stroke-width="9" />
      <path :d="wave" class="stroke-ink-soft" fill="none" stroke-width="1.2" transform="translate(0 -5)" />
      <path :d="wave" class="stroke-ink-soft" fill="none" stroke-width="1.2" transform="translate(0 5)" />
    </template>
  </svg>
</template>
