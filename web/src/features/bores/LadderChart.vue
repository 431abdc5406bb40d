<script setup lang="ts">
import { computed } from 'vue'

import type { CleanUpView, HoleOnLadder } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'

import BoreSeen from './BoreSeen.vue'
import { heightOn, plusText, wallsOf } from './ladder'
import NeedBars from './NeedBars.vue'

/**
 * Every bore cut across where it is worn deepest, and what it needs as bars up the ladder of the card. Without the words
 * at its side, what the steps leave is listed beside it.
 */
const props = defineProps<{
  view: CleanUpView
  holes: HoleOnLadder[]
  chosen: number | null
  wordless?: boolean
}>()
const emit = defineEmits<{ choose: [hole: number] }>()

const LEFT = 62
const right = computed(() => (props.wordless ? 352 : 640))
const BASE = 520
const TOP = 258
const steps = computed(() => props.view.steps.map((one) => one.oversize_m))
const column = computed(() =>
  Math.min(props.holes.length > 2 ? 168 : 288, (right.value - LEFT) / Math.max(1, props.holes.length)),
)
const look = computed(() => props.view.try_first ?? props.view.step)
const size = computed(() => Math.min(70, column.value * 0.42))
const y = (oversize: number) => BASE - heightOn(steps.value, oversize) * (BASE - TOP)
const x = (at: number) => LEFT + column.value * (at + 0.5)
/** Steps that a hole is drawn with: those near the one that is tried. [m] a side */
const rings = computed(() => {
  const tried = look.value?.oversize_m ?? steps.value[0] ?? 0
  return steps.value.filter((one) => one <= tried * 2.1).map((one) => one / 2)
})
/** Rings of the ladder are drawn to the magnification of the wear. */
const times = computed(() => {
  const most = Math.max(
    rings.value.at(-1) ?? 0.5e-3,
    ...props.view.holes.flatMap((hole) => hole.round.map((one) => one.wear_m)),
  )
  return (size.value * 0.46) / most
})
const small = (metres: number) => lengthText(metres, unit.value)
const plus = (oversize: number) => plusText(oversize, unit.value)
const rungOf = (hole: HoleOnLadder) =>
  hole.rungs.find((one) => one.step.oversize_um === look.value?.oversize_um)
const walls = computed(() => wallsOf(props.view))
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${wordless ? 356 : 860} 560`"
    class="block w-full"
    role="group"
    aria-label="Every bore against the ladder"
  >
    <g v-for="(hole, at) in holes" :key="hole.hole">
      <rect
        v-if="hole.hole === chosen"
        :x="x(at) - column / 2 + 2"
        y="2"
        :width="column - 4"
        :height="BASE + 26"
        rx="6"
        class="fill-act-wash stroke-act"
        stroke-width="2.5"
      />
      <g
        role="button"
        tabindex="0"
        class="cursor-pointer"
        :aria-label="`Bore ${hole.hole}${hole.best ? `: needs ${small(hole.best.most_m)} ${unit}` : `: ${hole.why_not}`}`"
        :aria-pressed="hole.hole === chosen"
        @click="emit('choose', hole.hole)"
        @keydown.enter.prevent="emit('choose', hole.hole)"
      >
        <rect :x="x(at) - column / 2" y="0" :width="column" :height="BASE" fill="transparent" />
        <BoreSeen
          :transform="`translate(${x(at)} 0)`"
          :hole="hole"
          :size="size"
          :rings="rings"
          :times="times"
          :look="look"
          :drawn="rungOf(hole)?.drawn ?? null"
        />
        <g v-if="rungOf(hole)" :transform="`translate(${x(at)} ${TOP - 26})`">
          <g
            v-for="(state, side) in [rungOf(hole)!.drawn, rungOf(hole)!.best]"
            :key="side"
            :transform="`translate(${side === 0 ? -column * 0.19 : column * 0.19} 0)`"
            :class="STATE_TONE[state]"
          >
            <path d="M-7 -7V7M7 -7V7" stroke="currentColor" stroke-width="2" />
            <circle
              :cx="state === 'in' ? 0 : state === 'out' ? -11 : -7"
              r="4"
              :fill="state === 'cannot tell' ? 'var(--color-paper)' : 'currentColor'"
              stroke="currentColor"
              stroke-width="2"
            />
            <title>{{ side === 0 ? 'drawn centre' : 'best centre' }}: {{ state }}</title>
          </g>
        </g>
        <NeedBars
          :transform="`translate(${x(at)} 0)`"
          :hole="hole"
          :column="column"
          :base="BASE"
          :height="y"
        />
      </g>
    </g>
    <g v-if="look">
      <text x="0" :y="TOP - 21" font-size="14" class="fill-ink-soft">at {{ plus(look.oversize_m) }}</text>
    </g>
    <g v-for="(one, at) in walls" :key="one.step.typed">
      <path
        :d="`M${LEFT} ${y(one.step.oversize_m)}H${right}`"
        :class="one.step.oversize_um === look?.oversize_um ? 'stroke-ink' : 'stroke-ink-soft'"
        :stroke-width="one.step.oversize_um === look?.oversize_um ? 2.6 : 1.2"
        pointer-events="none"
      />
      <text
        :x="LEFT - 8"
        :y="y(one.step.oversize_m) + 6"
        text-anchor="end"
        font-size="16"
        font-weight="700"
        class="fill-ink"
      >
        {{ plus(one.step.oversize_m) }}
      </text>
      <g
        v-if="!wordless"
        :transform="`translate(${right + 14} ${y(one.step.oversize_m) + (at === 0 ? 4 : 5)})`"
        font-size="14"
      >
        <text class="fill-ink">
          <template v-if="one.thinnest">
            wall
            <tspan class="num" font-weight="700">
              {{ lengthText(one.thinnest.left_m, SIZE_WITH[unit], { digits: unit === 'thou' ? 3 : 2 }) }}
            </tspan>
            <tspan v-if="one.thinnest.keeps === 'out'" font-weight="700" class="fill-out">too thin</tspan>
            <tspan v-else-if="one.rebores !== null" class="fill-ink-soft">
              , {{ one.rebores }} re-bore{{ one.rebores === 1 ? '' : 's' }} left
            </tspan>
          </template>
          <template v-else>{{ one.step.had }}</template>
        </text>
        <text v-if="at === 0" y="19" class="fill-ink-soft">{{ one.step.kind }}</text>
      </g>
    </g>
    <path
      :d="`M${LEFT} ${TOP}V${BASE}H${right}V${TOP}`"
      class="fill-none stroke-ink"
      stroke-width="1.6"
      pointer-events="none"
    />
    <text :x="LEFT - 8" :y="TOP + 5" text-anchor="end" font-size="15" font-weight="700" class="fill-ink">
      sleeve
    </text>
    <text :x="LEFT - 8" :y="BASE + 5" text-anchor="end" font-size="14" class="fill-ink-soft">0</text>
    <g
      v-if="!wordless"
      :transform="`translate(${right + 14} ${BASE - 62})`"
      font-size="13"
      class="fill-ink-soft"
    >
      <text>drawn: on the drawn centre</text>
      <text y="18">best: moved, at most {{ small(view.move_most_m) }}</text>
    </g>
  </svg>
</template>
