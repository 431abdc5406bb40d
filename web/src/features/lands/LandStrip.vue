<script setup lang="ts">
import { computed } from 'vue'

import type { LandOfMakeView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

/** One land of a make: each liner a dot with its ±, by its height; where there are two heights, two shapes. */
const props = defineProps<{ land: LandOfMakeView; names: ReadonlyMap<string, string>; isSize: boolean }>()
const phone = usePhone()
const wide = computed(() => (phone.value ? 350 : 720))
const LANE = 24
const middle = computed(() => props.land.mean_m)
const ends = computed(() => {
  const all = props.land.reads.flatMap((one) => [
    one.value.value_m - one.value.expanded_m,
    one.value.value_m + one.value.expanded_m,
  ])
  const low = Math.min(...all)
  const high = Math.max(...all)
  const room = Math.max((high - low) * 0.08, 2e-6)
  return { low: low - room, high: high + room }
})
const x = (metres: number) =>
  40 + ((metres - ends.value.low) / (ends.value.high - ends.value.low)) * (wide.value - 80)
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
const shown = (metres: number) => (props.isSize ? small(metres - middle.value) : small(metres))
/** Dots that would lie on each other stand one above the other. */
const laid = computed(() => {
  const lanes: number[] = []
  const dots = [...props.land.reads]
    .sort((a, b) => a.value.value_m - b.value.value_m)
    .map((one) => {
      const at = x(one.value.value_m)
      const free = lanes.findIndex((last) => at - last > 36)
      const lane = free === -1 ? lanes.length : free
      lanes[lane] = at
      return { one, at, lane }
    })
  const base = 18 + lanes.length * LANE
  return { base, tall: base + 24, dots: dots.map((dot) => ({ ...dot, y: base - 12 - dot.lane * LANE })) }
})
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${wide} ${laid.tall}`"
    class="block w-full"
    role="img"
    :aria-label="`${land.land}: ${land.reads.map((one) => `${names.get(one.liner_id)} ${shown(one.value.value_m)}`).join(', ')}`"
  >
    <path :d="`M40 ${laid.base}H${wide - 40}`" class="stroke-ink-soft" stroke-width="1" />
    <path
      :d="`M${x(middle)} 6V${laid.base + 4}`"
      class="stroke-ink-soft"
      stroke-width="1"
      stroke-dasharray="3 3"
    />
    <g
      v-for="{ one, at, y } in laid.dots"
      :key="one.liner_id"
      :class="one.kind === 2 ? 'text-act' : 'text-part'"
    >
      <path
        :d="`M${x(one.value.value_m - one.value.expanded_m)} ${y}H${x(one.value.value_m + one.value.expanded_m)}`"
        stroke="currentColor"
        stroke-width="1.4"
        opacity="0.6"
      />
      <path
        v-if="one.kind === 2"
        :d="`M${at} ${y - 6}L${at + 6} ${y}L${at} ${y + 6}L${at - 6} ${y}Z`"
        fill="currentColor"
      />
      <circle v-else :cx="at" :cy="y" r="5" fill="currentColor" />
      <text
        :x="at + 9"
        :y="y + 4"
        font-size="13"
        class="fill-ink stroke-paper"
        paint-order="stroke"
        stroke-width="4"
      >
        {{ names.get(one.liner_id) }}
      </text>
    </g>
    <text x="40" :y="laid.base + 18" font-size="13" class="num fill-ink-soft">{{ shown(ends.low) }}</text>
    <text :x="wide - 40" :y="laid.base + 18" font-size="13" text-anchor="end" class="num fill-ink-soft">
      {{ shown(ends.high) }}
    </text>
    <text :x="x(middle)" :y="laid.base + 18" font-size="13" text-anchor="middle" class="num fill-ink">
      {{ isSize ? 'mean' : small(middle) }}
    </text>
  </svg>
</template>
