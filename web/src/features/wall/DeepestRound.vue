<script setup lang="ts">
import { computed } from 'vue'

import type { WallView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import { acrossOn, evenStep, xOf } from './unrolled'

/** The deepest wear at every direction, whatever its depth, with the scores on top. */
const props = defineProps<{ wall: WallView }>()
const phone = usePhone()
const frame = computed(() => ({ ...acrossOn(phone.value), top: 0, height: HEIGHT, from: 0, to: 1 }))
const HEIGHT = 92
const UNIT = computed(() => (unit.value === 'µm' ? 1e-6 : 25.4e-6))
const round = computed(() => props.wall.wear.round_m)
const angle = (at: number) => (at * 360) / round.value.length
const wearAt = (degrees: number) => {
  const at = Math.round((((degrees % 360) + 360) % 360) / (360 / round.value.length)) % round.value.length
  return round.value[at] ?? 0
}
const scores = computed(() =>
  props.wall.marks.flatMap((mark) =>
    mark.finding.length_m === null
      ? []
      : [
          {
            mark,
            from: mark.angle_deg,
            until: mark.until_deg,
            to: wearAt(mark.angle_deg) + mark.finding.length_m,
          },
        ],
  ),
)
const most = computed(() => Math.max(1e-6, ...round.value, ...scores.value.map((one) => one.to)) * 1.12)
const y = (value: number) => HEIGHT - (value / most.value) * HEIGHT
const line = computed(() =>
  [...round.value, round.value[0] ?? 0]
    .map((value, at) => `${xOf(frame.value, angle(at))} ${y(value)}`)
    .join('L'),
)
const steps = computed(() => {
  const step = evenStep(most.value / UNIT.value) * 2 * UNIT.value
  return Array.from({ length: Math.floor(most.value / step) + 1 }, (_, at) => at * step)
})
</script>

<template>
  <figure v-if="round.length" class="mt-1">
    <figcaption class="pl-[7.4%] text-sm"><b>Deepest wear round the bore</b> a side, {{ unit }}</figcaption>
    <svg
      v-legible
      :viewBox="`0 -6 ${frame.left + frame.width + 14} 104`"
      class="block w-full"
      role="img"
      aria-label="Deepest wear round the bore"
    >
      <g v-for="step in steps" :key="step">
        <path :d="`M${frame.left} ${y(step)}h${frame.width}`" class="stroke-rule" />
        <text :x="frame.left - 10" :y="y(step) + 5" text-anchor="end" font-size="14" class="num fill-ink">
          {{ lengthText(step, unit, { digits: 0 }) }}
        </text>
      </g>
      <path
        :d="`M${frame.left} ${frame.height}L${line}L${frame.left + frame.width} ${frame.height}Z`"
        class="fill-part-wash"
      />
      <path :d="`M${line}`" class="fill-none stroke-part" stroke-width="2" />
      <g v-for="one in scores" :key="one.mark.letter">
        <path
          :d="`M${xOf(frame, one.from) - 4} ${y(wearAt(one.from))}V${y(one.to)}H${Math.max(xOf(frame, one.from) + 4, Math.min(xOf(frame, one.until), frame.left + frame.width))}V${y(wearAt(one.until))}`"
          class="fill-part-wash stroke-part"
          stroke-width="2"
        />
        <text
          :x="xOf(frame, one.from) + 8"
          :y="y(one.to) + 4"
          font-size="13"
          font-weight="700"
          class="fill-ink"
        >
          {{ one.mark.letter }}
        </text>
      </g>
    </svg>
  </figure>
</template>
