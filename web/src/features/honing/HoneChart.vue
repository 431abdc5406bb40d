<script setup lang="ts">
import { computed } from 'vue'

import type { HoneView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import { chartOf, frameOn } from './chart'

/** The stock left over the strokes: rounds made, the round that turns, rounds to come with their bands, every stop. */
const props = defineProps<{ view: HoneView; strokes: number }>()
const phone = usePhone()
const frame = computed(() => frameOn(phone.value))
const chart = computed(() =>
  chartOf(props.view, props.strokes, unit.value === 'thou' ? 25.4e-6 : 1e-6, frame.value),
)
const small = (metres: number) => lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0 })
const GRITS = computed<Record<string, string>>(() => ({
  rough: `${props.view.setting?.rough_grit} grit`,
  fine: `${props.view.setting?.fine_grit} grit`,
  brush: 'plateau',
}))
const end = (one: { from: { x: number }; to: { x: number } | null; strokes: number }) =>
  one.to?.x ?? one.from.x
</script>

<template>
  <figure class="flex h-full min-h-0 flex-col" aria-label="Stock left">
    <figcaption class="flex flex-wrap items-baseline justify-between gap-x-4">
      <b class="text-lg">Stock left, {{ unit }} on the diameter</b>
      <span class="text-sm text-ink-soft">over double strokes</span>
    </figcaption>
    <svg
      v-legible
      :viewBox="`0 0 ${frame.right + (phone ? 24 : 10)} 470`"
      class="block min-h-0 w-full flex-1"
      role="img"
      aria-label="Stock left over strokes"
    >
      <g v-for="tick in chart.ticks" :key="tick.metres">
        <path
          :d="`M${frame.left} ${tick.y}H${frame.right}`"
          :class="tick.metres === 0 ? 'stroke-ink' : 'stroke-rule'"
          stroke-width="1.4"
        />
        <text :x="frame.left - 8" :y="tick.y + 5" text-anchor="end" class="num fill-ink text-[15px]">
          {{ small(tick.metres).replace(/\.0$/, '') }}
        </text>
      </g>
      <template v-for="(one, at) in chart.rounds" :key="at">
        <path
          v-if="one.band && one.to"
          :d="`M${one.from.x} ${one.from.y}L${one.to.x} ${one.band.fast}V${one.band.slow}Z`"
          class="fill-part opacity-20"
        />
        <path
          v-if="at > 0 && chart.rounds[at - 1]?.to"
          :d="`M${chart.rounds[at - 1]?.to?.x} ${one.from.y}H${one.from.x}`"
          class="stroke-part"
          :stroke-width="one.isMade || one.isTurning ? 4 : 2"
          :stroke-dasharray="one.isMade || one.isTurning ? undefined : '5 4'"
        />
        <path
          v-if="one.to"
          :d="`M${one.from.x} ${one.from.y}L${one.to.x} ${one.to.y}`"
          class="stroke-part"
          :stroke-width="one.isMade ? 4 : 2"
          :stroke-dasharray="one.isMade ? undefined : '5 4'"
        />
        <text
          v-else-if="!one.isMade && (at === 0 || chart.rounds[at - 1]?.to)"
          :x="one.from.x + 6"
          :y="one.from.y + 26"
          class="fill-ink-soft text-[15px]"
        >
          rate not learned
        </text>
        <rect
          :x="one.from.x"
          y="410"
          :width="Math.max(4, end(one) - one.from.x)"
          height="7"
          class="fill-part"
        />
        <text
          :x="(one.from.x + end(one)) / 2"
          y="434"
          text-anchor="middle"
          class="num fill-ink text-[14px] font-bold"
        >
          {{ one.strokes }}
        </text>
      </template>
      <g v-for="(one, at) in chart.rounds" :key="`dot ${at}`">
        <circle v-if="at === 0" :cx="one.from.x" :cy="one.from.y" r="7" class="fill-part" />
        <template v-if="one.to">
          <circle
            :cx="one.to.x"
            :cy="one.to.y"
            r="6.5"
            :class="one.isMade ? 'fill-part' : 'fill-sheet'"
            class="stroke-part"
            stroke-width="2.5"
          />
          <text
            v-if="one.left !== null"
            :x="Math.min(one.to.x + 3, 466)"
            :y="one.to.y - 11"
            class="num fill-ink text-[20px] font-bold"
          >
            {{ small(one.left) }}
          </text>
        </template>
      </g>
      <g v-if="chart.stop !== null && view.stage">
        <path :d="`M${chart.stop} 60V${frame.foot}`" class="stroke-act" stroke-width="3" />
        <text :x="chart.stop + 7" y="74" class="fill-act text-[17px] font-bold">stop</text>
      </g>
      <g v-if="chart.now">
        <path :d="`M${chart.now.x} 40V${frame.foot}`" class="stroke-ink" stroke-width="2.5" />
        <text :x="chart.now.x - 6" y="52" text-anchor="end" class="fill-ink text-[17px] font-bold">now</text>
        <circle :cx="chart.now.x" :cy="chart.now.y" r="9" class="fill-ink" />
      </g>
      <g v-for="one in chart.stages" :key="`${one.stage} ${one.from}`">
        <text :x="one.from" y="456" class="fill-ink text-[17px] font-bold">
          {{ one.stage }}
          <tspan dx="7" class="fill-ink-soft text-[14px] font-normal">
            {{ one.to - one.from > 90 || one.stage === 'brush' ? GRITS[one.stage] : '' }}
          </tspan>
        </text>
      </g>
    </svg>
  </figure>
</template>
