<script setup lang="ts">
import { computed } from 'vue'

import type { HolePlanView, PlannedCut } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

/** The ledge unrolled from 12 h round to 12 h: as it stands, and where the cut ends. Heights magnified. */
const props = defineProps<{ plan: HolePlanView; cut: PlannedCut }>()

const phone = usePhone()
const width = computed(() => (phone.value ? 350 : 760))
const HEIGHT = 210
const left = computed(() => (phone.value ? 66 : 92))
const TOP = 40
const SPAN = 92

const points = computed(() => {
  const order = [...props.plan.positions].sort((a, b) => (a.hour % 12) - (b.hour % 12))
  const first = order[0]
  return first ? [...order, { ...first, hour: 12 + (first.hour % 12) }] : []
})
const scale = computed(() => {
  const depths = [...points.value.map((point) => point.present_depth_m), props.cut.depth_m]
  const least = Math.min(...depths)
  const greatest = Math.max(...depths)
  return { least, perMetre: SPAN / Math.max(greatest - least, 5e-6) }
})
const yOf = (depth: number) => TOP + (depth - scale.value.least) * scale.value.perMetre
const xOf = (hour: number) =>
  left.value +
  ((hour === 12 ? 0 : hour > 12 ? 12 : hour) / 12) * (width.value - left.value - (phone.value ? 24 : 40))
const placed = computed(() =>
  points.value.map((point, index) => ({
    ...point,
    x: index === points.value.length - 1 ? xOf(13) : xOf(point.hour),
    y: yOf(point.present_depth_m),
    label:
      index === points.value.length - 1
        ? hourText(props.plan.positions[0]?.hour ?? 12)
        : hourText(point.hour),
  })),
)
const cutY = computed(() => yOf(props.cut.depth_m))
const removed = computed(() => {
  const top = placed.value.map((point) => `${point.x} ${point.y}`).join('L')
  const from = placed.value[0]?.x ?? 0
  const to = placed.value.at(-1)?.x ?? 0
  return `M${top}L${to} ${cutY.value}L${from} ${cutY.value}z`
})
const metal = computed(() => {
  const top = placed.value.map((point) => `${point.x} ${point.y}`).join('L')
  return `M${top}V${HEIGHT - 30}H${placed.value[0]?.x ?? 0}z`
})
const factor = computed(() => Math.round((scale.value.perMetre * 25.4e-3) / 96 / 10) * 10)
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${width} ${HEIGHT}`"
    class="w-full"
    role="img"
    aria-label="Ledge unrolled, with the cut"
  >
    <text x="0" y="14" class="fill-ink-soft" font-size="13">
      ledge unrolled, depth from the deck in {{ SIZE_WITH[unit] }} · heights × {{ factor }}
    </text>
    <path :d="metal" class="fill-iron" />
    <path :d="removed" class="fill-act-wash" />
    <polyline
      :points="placed.map((point) => `${point.x},${point.y}`).join(' ')"
      class="fill-none stroke-part"
      stroke-width="2"
    />
    <path :d="`M${left - 6} ${cutY}H${xOf(13) + 6}`" class="stroke-act" stroke-width="2.5" />
    <text :x="left - 12" :y="cutY + 5" text-anchor="end" class="fill-act font-mono font-bold" font-size="14">
      {{ lengthText(cut.depth_m, SIZE_WITH[unit]) }}
    </text>
    <g v-for="(point, index) in placed" :key="index">
      <circle :cx="point.x" :cy="point.y" r="4.5" class="fill-part" />
      <text :x="point.x" :y="point.y - 10" text-anchor="middle" class="fill-ink font-mono" font-size="13">
        {{ lengthText(point.present_depth_m, SIZE_WITH[unit]) }}
      </text>
      <text
        v-if="index < placed.length - 1 && typeof point.cut_m === 'number'"
        :x="point.x + 8"
        :y="(point.y + cutY) / 2 + 6"
        class="fill-act font-mono font-bold"
        font-size="14"
      >
        −{{ lengthText(point.cut_m, unit, { digits: unit === 'thou' ? 1 : 0 }) }} {{ unit }}
      </text>
      <text :x="point.x" :y="HEIGHT - 10" text-anchor="middle" class="fill-ink-soft" font-size="13">
        {{ point.label }}
      </text>
    </g>
  </svg>
</template>
