<script setup lang="ts">
import { computed } from 'vue'

import type { BlockPlansView, BlockPlanView, PlanHoleView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { percentText } from '@/shared/format/others'
import { STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import { sectionScale } from './section'

/** A row of holes in section along the crank: dashed as it is, solid after the plan, and the figures of each. */
const props = defineProps<{ plan: BlockPlanView; plans: BlockPlansView; row: number[]; jobId: string }>()
const LEFT = 44
const phone = usePhone()
/** Width of the drawing and what stands at each side of a hole: less of it where figures need the room. */
const drawn = computed(() =>
  phone.value ? { width: 360, gap: 5, flange: 12, wall: 8 } : { width: 1240, gap: 11, flange: 15, wall: 11 },
)

const scale = computed(() => sectionScale(props.plan, props.plans.greatest_m))
const pitch = computed(() => (drawn.value.width - LEFT) / props.row.length)
const holes = computed(() =>
  props.row.flatMap((number, at) => {
    const hole = props.plan.holes.find((one) => one.hole === number)
    return hole ? [{ hole, x: LEFT + at * pitch.value, turn: props.plan.order.indexOf(number) + 1 }] : []
  }),
)
/** Both sides of a hole: the metal between holes, the ledge in it, liner and flange on the ledge, a shim under it. */
function sides(one: { hole: PlanHoleView; x: number }) {
  const { hole, x } = one
  const { up, down, bottom, deck } = scale.value
  const { gap, flange, wall: thick } = drawn.value
  const now = hole.present_depth_m
  const after = hole.cut?.depth_m ?? now
  return [-1, 1].map((side) => {
    const wall = side < 0 ? x + gap : x + pitch.value - gap
    const inner = wall - side * flange
    const body = inner - side * thick
    const edge = side < 0 ? x : x + pitch.value
    const rect = (from: number, to: number, top: number, low: number) =>
      `M${from} ${top}H${to}V${low}H${from}z`
    const ledge = after === null ? bottom : down(after)
    const flangeLow = hole.cut ? down(hole.cut.depth_m - hole.cut.shim_m) : ledge
    const stands = hole.cut ? hole.cut.protrusion_m : hole.now_m
    return {
      metal: `M${edge} ${deck}H${wall}V${ledge}H${inner}V${bottom}H${edge}z`,
      liner: stands === null ? '' : `M${wall} ${up(stands)}H${body}V${bottom}H${inner}V${flangeLow}H${wall}z`,
      shim: hole.cut ? rect(wall, inner, Math.max(flangeLow, scale.value.breakAt + 12), ledge) : '',
      was: now === null || !hole.cut ? '' : `M${wall} ${down(now)}H${inner}`,
      stood: hole.now_m === null || !hole.cut ? '' : `M${wall} ${up(hole.now_m)}H${body}`,
      pit: hole.cut?.pit_m ? `M${wall - side * 6} ${down(now ?? 0)}V${down(hole.cut.pit_m)}` : '',
    }
  })
}
const breaks = computed(() => {
  const y = scale.value.breakAt
  let path = `M${LEFT} ${y}`
  for (let x = LEFT; x < drawn.value.width; x += 24) path += `q6 -5 12 0t12 0`
  return path
})
const window = computed(() => {
  const { least_m: least, greatest_m: greatest } = props.plans
  return least === null || greatest === null
    ? null
    : { top: scale.value.up(greatest), low: scale.value.up(least) }
})
const size = (metres: number | null) => (metres === null ? '–' : lengthText(metres, SIZE_WITH[unit.value]))
const small = (metres: number) => exactSmall(metres, unit.value)
const lines = (hole: PlanHoleView): [string, string][] => {
  const { cut } = hole
  if (!cut)
    return [
      ['ledge', size(hole.present_depth_m)],
      ['left', size(hole.ledge_left_m)],
    ]
  const part = cut.part_pass_m > 0 ? `+${small(cut.part_pass_m)}` : ''
  return [
    ['now', hole.now_m === null ? '–' : exactSmall(hole.now_m, unit.value, { signed: true })],
    ['touch', small(cut.from_touch_off_m)],
    ['deck', size(cut.depth_m)],
    ['shim', size(cut.shim_m)],
    ['passes', `${cut.passes}${part}`],
    ['left', size(cut.ledge_left_m)],
    ['by gauge', `±${small(cut.by_gauge_expanded_m)}`],
  ]
}
</script>

<template>
  <div class="relative" :style="{ aspectRatio: `${drawn.width} / ${scale.bottom}` }">
    <svg
      v-legible
      :viewBox="`0 0 ${drawn.width} ${scale.bottom}`"
      class="block w-full"
      role="img"
      aria-label="The block in section along the crank, as it is and after the plan"
    >
      <rect
        v-if="window"
        :x="LEFT"
        :y="window.top"
        :width="drawn.width - LEFT"
        :height="window.low - window.top"
        class="fill-in opacity-10"
      />
      <template v-for="one in holes" :key="`${one.hole.hole}`">
        <rect
          v-if="one.hole.cut"
          :x="one.x + drawn.gap"
          y="0"
          :width="pitch - 2 * drawn.gap"
          :height="scale.bottom"
          class="fill-act-wash"
        />
        <g v-for="(side, at) in sides(one)" :key="at">
          <path :d="side.metal" class="fill-iron stroke-ink" stroke-width="1.4" />
          <path v-if="side.shim" :d="side.shim" class="fill-sheet stroke-ink" stroke-width="1.2" />
          <path v-if="side.liner" :d="side.liner" class="fill-part-wash stroke-part" stroke-width="1.6" />
          <path v-if="side.was" :d="side.was" class="stroke-part" stroke-width="1.6" stroke-dasharray="4 3" />
          <path
            v-if="side.stood"
            :d="side.stood"
            class="stroke-part"
            stroke-width="1.6"
            stroke-dasharray="4 3"
          />
          <path v-if="side.pit" :d="side.pit" class="stroke-unsure" stroke-width="2.5" />
        </g>
      </template>
      <path :d="`M${LEFT} ${scale.deck}H${drawn.width}`" class="stroke-ink-soft" stroke-dasharray="1 3" />
      <path :d="breaks" class="fill-none stroke-paper" stroke-width="7" />
      <g class="fill-ink-soft font-mono" font-size="12.5" text-anchor="end">
        <text :x="LEFT - 6" :y="scale.deck + 4" class="fill-ink font-bold">deck</text>
        <template v-if="window && plans.greatest_m !== null && plans.least_m !== null">
          <text :x="LEFT - 6" :y="window.top + 4">+{{ lengthText(plans.greatest_m, unit) }}</text>
          <text :x="LEFT - 6" :y="window.low + 5">+{{ lengthText(plans.least_m, unit) }}</text>
        </template>
        <text v-for="tick in scale.ticks" :key="tick" :x="LEFT - 6" :y="scale.down(tick) + 4">
          {{ lengthText(tick, SIZE_WITH[unit], { digits: unit === 'µm' ? 2 : 3 }) }}
        </text>
      </g>
    </svg>
    <ol
      class="absolute inset-y-0 right-0 grid"
      :style="{ left: `${(LEFT / drawn.width) * 100}%`, gridTemplateColumns: `repeat(${row.length}, 1fr)` }"
      aria-label="Each hole after the plan"
    >
      <li
        v-for="one in holes"
        :key="one.hole.hole"
        class="grid content-start px-[19%] text-center sm:px-[20%] leading-tight"
      >
        <component
          :is="one.hole.cut ? 'RouterLink' : 'span'"
          :to="{ name: 'cut', params: { job: jobId, hole: one.hole.hole } }"
          class="pt-1 text-2xl font-bold"
          :class="one.hole.cut ? 'underline decoration-act decoration-2 underline-offset-4' : ''"
          >{{ one.hole.hole }}</component
        >
        <template v-if="one.hole.cut">
          <b class="num pt-1 text-xl">{{ exactSmall(one.hole.cut.protrusion_m, unit, { signed: true }) }}</b>
          <span class="num text-xs text-ink-soft">±{{ small(one.hole.cut.by_stop_expanded_m) }} by stop</span>
          <b class="pt-0.5">{{ percentText(one.hole.cut.chance) }} in</b>
        </template>
        <template v-else>
          <b class="num pt-1 text-xl">{{
            one.hole.now_m === null ? '–' : exactSmall(one.hole.now_m, unit, { signed: true })
          }}</b>
          <span v-if="one.hole.now_expanded_m !== null" class="num text-xs text-ink-soft"
            >±{{ small(one.hole.now_expanded_m) }} as read</span
          >
          <span
            class="inline-flex items-center justify-center gap-1 pt-0.5"
            :class="STATE_TONE[one.hole.state]"
          >
            <StateGate :state="one.hole.state" class="h-4" /><b>{{ one.hole.state }}</b>
          </span>
        </template>
        <dl class="grid grid-cols-[auto_1fr] pt-1 text-left text-xs sm:text-sm">
          <template v-for="[name, value] in lines(one.hole)" :key="name">
            <dt class="whitespace-nowrap text-ink-soft">{{ name }}</dt>
            <dd class="num text-right" :class="one.hole.cut && 'font-bold'">{{ value }}</dd>
          </template>
        </dl>
      </li>
    </ol>
  </div>
</template>
