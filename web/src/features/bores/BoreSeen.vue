<script setup lang="ts">
import { computed } from 'vue'

import type { HoleOnLadder, State } from '@/api/generated'
import { clockText, hourOfAngle } from '@/shared/format/clock'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { movedTo, outlineOf } from './ladder'

/** One bore cut across where it is worn deepest, inside the rings of the ladder; below it what that is in numbers. */
const props = defineProps<{
  hole: HoleOnLadder
  size: number
  rings: number[]
  times: number
  look: { oversize_m: number } | null
  drawn: State | null
}>()
const inner = computed(() => props.size * 0.54)
const small = (metres: number) => lengthText(metres, unit.value)
const score = computed(() =>
  props.hole.marks.reduce<HoleOnLadder['marks'][number] | null>(
    (worst, one) => ((one.depth_m ?? 0) > (worst?.depth_m ?? 0) ? one : worst),
    null,
  ),
)
</script>

<template>
  <g>
    <g :transform="`translate(0 ${size + 14})`">
      <circle :r="inner + (rings.at(-1) ?? 0) * times" class="fill-iron stroke-ink-soft" stroke-width="0.8" />
      <circle
        v-for="step in rings.slice(0, -1)"
        :key="step"
        :r="inner + step * times"
        class="fill-none stroke-ink-soft"
        stroke-width="0.8"
      />
      <circle
        v-if="look"
        :r="inner + look.oversize_m * 0.5 * times"
        class="fill-none stroke-ink"
        stroke-width="2.2"
      />
      <circle
        v-if="look && hole.best && drawn !== 'in' && hole.best.move_m > 0"
        :cx="movedTo(hole.best.move_m, hole.best.move_deg, times).x"
        :cy="movedTo(hole.best.move_m, hole.best.move_deg, times).y"
        :r="inner + look.oversize_m * 0.5 * times"
        class="fill-none stroke-ink"
        stroke-width="2"
        stroke-dasharray="5 4"
      />
      <polygon
        :points="
          outlineOf(
            hole.round.map((one) => ({ angle: one.angle_deg, wear: one.wear_m })),
            inner,
            times,
          )
        "
        class="fill-sheet stroke-part"
        stroke-width="2"
      />
      <circle v-if="!hole.round.length" :r="inner" class="fill-sheet stroke-part" stroke-width="2" />
      <circle :r="inner - 5" class="fill-paper stroke-ink-soft" stroke-dasharray="3 3" stroke-width="0.8" />
      <text text-anchor="middle" y="9" font-size="26" font-weight="700" class="fill-ink">
        {{ hole.hole }}
      </text>
    </g>
    <g :transform="`translate(0 ${size * 2 + 46})`" text-anchor="middle">
      <template v-if="hole.deepest_m !== null && hole.deepest_deg !== null">
        <text font-size="15" class="fill-ink">
          <tspan class="num" font-weight="700" font-size="17">{{ small(hole.deepest_m) }}</tspan>
          a side,
          {{ clockText(hourOfAngle(hole.deepest_deg)) }}
        </text>
        <text y="20" font-size="14" class="fill-ink-soft"> {{ small(hole.opposite_m ?? 0) }} opposite </text>
        <text v-if="score" y="39" font-size="14" font-weight="700" class="fill-ink">
          {{ score?.word }} +{{ small(score?.depth_m ?? 0) }} ±{{
            uncertaintyText(score?.expanded_m ?? 0, unit)
          }}
        </text>
      </template>
      <text v-else font-size="14" class="fill-ink-soft">
        {{ hole.by_diameters ? 'side not read' : 'not read' }}
      </text>
    </g>
  </g>
</template>
