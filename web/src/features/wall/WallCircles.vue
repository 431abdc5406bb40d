<script setup lang="ts">
import { computed } from 'vue'

import type { CircleLevel } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import type { Shown } from './shown'

/** Each level as a circle: dashed what it is held against, dots what was read, many times magnified. */
const props = defineProps<{ shown: Shown; depth: number | null }>()
const emit = defineEmits<{ level: [depth: number] }>()
const ROUND = 30
const SWING = 11

const isWear = computed(() => props.shown.kind === 'wear')
/** A diameter swings by half of it on either side. */
const isRadius = computed(() => props.shown.kind === 'radius')
const side = computed(() => (isWear.value || isRadius.value ? 1 : 0.5))
const most = computed(() =>
  Math.max(1e-7, ...props.shown.dots.map((one) => Math.abs(one.value_m - props.shown.offset) * side.value)),
)
const levels = computed(() =>
  [...new Set(props.shown.dots.map((one) => one.depth_m))]
    .sort((a, b) => a - b)
    .map((depth) => {
      const dots = props.shown.dots
        .filter((one) => one.depth_m === depth)
        .sort((a, b) => a.angle_deg - b.angle_deg)
        .map((one) => {
          const r = ROUND + (((one.value_m - props.shown.offset) * side.value) / most.value) * SWING
          const turn = (one.angle_deg * Math.PI) / 180
          return { x: -r * Math.cos(turn), y: -r * Math.sin(turn) }
        })
      const circle = props.shown.circles.find((one) => Math.abs(one.depth_m - depth) < 1e-9) ?? null
      return { depth, dots, circle, name: circle?.name ?? '' }
    }),
)
const middle = (level: (typeof levels.value)[number]) => {
  if (isWear.value) {
    const values = props.shown.dots.filter((one) => one.depth_m === level.depth).map((one) => one.value_m)
    return lengthText(Math.max(...values), unit.value)
  }
  return level.circle
    ? lengthText(level.circle.mean_m - props.shown.offset, unit.value, { signed: true })
    : ''
}
const told = (circle: CircleLevel | null, kind: string) =>
  circle?.told.find((one) => one.kind === kind) ?? null
const KINDS = computed(() => (props.shown.kind === 'change' ? ['ovality', 'four lobes'] : ['out of round']))
const lines = (circle: CircleLevel | null) =>
  KINDS.value.flatMap((kind) => {
    const one = told(circle, kind)
    return one
      ? [`${lengthText(one.value_m, unit.value)} ±${uncertaintyText(one.expanded_m, unit.value)}`]
      : []
  })
const magnified = computed(() => Math.round(((SWING / ROUND) * 0.05) / most.value / 10) * 10)
</script>

<template>
  <section aria-label="By level">
    <div class="grid grid-cols-3 gap-x-2 gap-y-1">
      <button
        v-for="level in levels"
        :key="level.depth"
        type="button"
        class="grid justify-items-center text-center"
        :class="level.depth === depth && 'bg-act-wash'"
        :aria-pressed="level.depth === depth"
        @click="emit('level', level.depth)"
      >
        <svg v-legible viewBox="-48 -48 96 96" class="w-[84px]" aria-hidden="true">
          <circle :r="ROUND + SWING + 4" class="fill-track stroke-ink" stroke-width="1" />
          <circle :r="ROUND" class="fill-sheet stroke-ink" stroke-width="1" stroke-dasharray="3 3" />
          <polygon
            :points="level.dots.map((one) => `${one.x},${one.y}`).join(' ')"
            class="fill-none stroke-part"
            stroke-width="1.6"
          />
          <circle
            v-for="(dot, at) in level.dots"
            :key="at"
            :cx="dot.x"
            :cy="dot.y"
            r="2.7"
            class="fill-part"
          />
          <text text-anchor="middle" y="6" font-size="16" font-weight="700" class="num fill-ink">
            {{ middle(level) }}
          </text>
        </svg>
        <span class="text-xs leading-tight"
          >{{ level.name }}
          <span class="num">{{
            lengthText(level.depth, SIZE_WITH[unit], { digits: unit === 'thou' ? 1 : 0 })
          }}</span></span
        >
        <span v-for="line in lines(level.circle)" :key="line" class="text-xs leading-tight text-ink-soft">{{
          line
        }}</span>
      </button>
    </div>
    <p class="mt-1 text-xs text-ink-soft">
      <template v-if="!isRadius"
        >{{ isWear ? 'deepest a side' : 'mean on the diameter' }} in the middle, below
        {{ KINDS.join(', then ') }}; </template
      >shape × {{ magnified }}
    </p>
  </section>
</template>
