<script setup lang="ts">
import { computed } from 'vue'

import type { CleanUpView, HoleOnLadder } from '@/api/generated'
import { clockText, hourOfAngle } from '@/shared/format/clock'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** One bore cut down its depth where it is worn deepest, wear many times magnified, with the steps beside it. */
const props = defineProps<{ view: CleanUpView; hole: HoleOnLadder }>()
const WIDTH = 350
const HEIGHT = 270
const MIDDLE = WIDTH / 2
const BAND = 44
const look = computed(() => props.view.try_first ?? props.view.step)
/** Two steps beside the one that is tried are enough to see how near it is. */
const steps = computed(() =>
  props.view.steps.filter(
    (one) => one.oversize_m <= (look.value?.oversize_m ?? 0) * 2.1 || look.value === null,
  ),
)
const score = computed(() =>
  props.hole.marks
    .filter((one) => one.depth_m !== null)
    .reduce<HoleOnLadder['marks'][number] | null>(
      (worst, one) => ((one.depth_m ?? 0) > (worst?.depth_m ?? 0) ? one : worst),
      null,
    ),
)
const most = computed(() => Math.max(1e-6, ...steps.value.map((one) => one.oversize_m / 2)))
const times = computed(() => (MIDDLE - BAND - 26) / most.value)
const last = computed(() => (props.hole.section.at(-1)?.depth_m ?? 0.1) * 1.14)
const y = (depth: number) => 24 + (depth / last.value) * (HEIGHT - 30)
const right = (wear: number) => MIDDLE + BAND + wear * times.value
const left = (wear: number) => MIDDLE - BAND - wear * times.value
const band = computed(() => props.view.ring_top_m ?? props.hole.section[0]?.depth_m ?? 0)
const down = (side: 'wear_m' | 'opposite_m', across: (wear: number) => number) =>
  [
    `${across(0)} ${y(0)}`,
    `${across(0)} ${y(band.value)}`,
    ...props.hole.section.map((one) => `${across(one[side])} ${y(one.depth_m)}`),
    `${across(0)} ${y(last.value)}`,
  ].join('L')
const shift = computed(() => {
  const { best, deepest_deg: deepest } = props.hole
  if (!best || deepest === null) return 0
  return best.move_m * Math.cos(((best.move_deg - deepest) * Math.PI) / 180)
})
const bored = computed(() => (look.value ? look.value.oversize_m / 2 : 0))
</script>

<template>
  <svg
    v-if="hole.section.length"
    v-legible
    :viewBox="`0 0 ${WIDTH} ${HEIGHT + 40}`"
    class="block w-full"
    role="img"
    :aria-label="`Bore ${hole.hole} cut down its depth`"
  >
    <rect x="0" y="18" :width="WIDTH" :height="HEIGHT - 12" class="fill-iron" />
    <path
      :d="`M${down('wear_m', right)}L${down('opposite_m', left).split('L').reverse().join('L')}Z`"
      class="fill-sheet"
    />
    <g v-for="step in steps" :key="step.typed">
      <path
        :d="`M${right(step.oversize_m / 2)} 18V${HEIGHT + 6}M${left(step.oversize_m / 2)} 18V${HEIGHT + 6}`"
        :class="step.oversize_um === look?.oversize_um ? 'stroke-ink' : 'stroke-ink-soft'"
        :stroke-dasharray="step.oversize_um === look?.oversize_um ? '2 4' : undefined"
      />
      <text :x="right(step.oversize_m / 2)" y="13" text-anchor="middle" font-size="13" class="num fill-ink">
        +{{ step.typed }}
      </text>
      <text :x="left(step.oversize_m / 2)" y="13" text-anchor="middle" font-size="13" class="num fill-ink">
        +{{ step.typed }}
      </text>
    </g>
    <template v-if="look && shift !== 0">
      <path
        :d="`M${right(bored + shift)} 18V${HEIGHT + 6}M${left(bored - shift)} 18V${HEIGHT + 6}M${MIDDLE + shift * times} 18V${HEIGHT + 6}`"
        class="stroke-ink"
        stroke-width="2.2"
        stroke-dasharray="7 5"
      />
      <path :d="`M${MIDDLE} 18V${HEIGHT + 6}`" class="stroke-ink-soft" stroke-dasharray="10 3 2 3" />
    </template>
    <path :d="`M${down('wear_m', right)}`" class="fill-none stroke-part" stroke-width="2" />
    <path :d="`M${down('opposite_m', left)}`" class="fill-none stroke-part" stroke-width="2" />
    <path
      v-if="score && hole.deepest_m !== null"
      :d="`M${right(hole.deepest_m)} ${y(score.from_m)}L${right(hole.deepest_m + (score.depth_m ?? 0))} ${y(score.from_m)}V${y(score.until_m)}L${right(hole.deepest_m / 2)} ${y(score.until_m)}`"
      class="fill-none stroke-ink"
      stroke-width="1.6"
    />
    <g v-for="one in hole.section" :key="one.depth_m">
      <circle :cx="right(one.wear_m)" :cy="y(one.depth_m)" r="3.4" class="fill-part" />
      <circle :cx="left(one.opposite_m)" :cy="y(one.depth_m)" r="3.4" class="fill-part" />
      <text x="4" :y="y(one.depth_m) + 4" font-size="12" class="num fill-ink-soft">
        {{ lengthText(one.depth_m, SIZE_WITH[unit], { digits: unit === 'thou' ? 1 : 0 }) }}
      </text>
    </g>
    <text
      v-if="hole.deepest_deg !== null"
      :x="MIDDLE - BAND - 30"
      :y="HEIGHT + 26"
      text-anchor="end"
      font-size="15"
      font-weight="700"
      class="fill-ink"
    >
      {{ clockText(hourOfAngle(hole.deepest_deg + 180)) }}
    </text>
    <text
      v-if="hole.deepest_deg !== null"
      :x="MIDDLE + BAND + 10"
      :y="HEIGHT + 26"
      font-size="15"
      font-weight="700"
      class="fill-ink"
    >
      {{ clockText(hourOfAngle(hole.deepest_deg)) }}, deepest
    </text>
  </svg>
  <p v-else class="py-3 text-sm text-ink-soft">
    Which side is worn is not read: there is nothing to cut through.
  </p>
</template>
