<script setup lang="ts">
import { computed } from 'vue'

import type { OptionOfHole } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** The hole in section afterwards: deck, window, flange on its ledge, shim or ring under it, what is taken off. */
const props = defineProps<{ option: OptionOfHole; hole: number }>()
const DECK = 62
const row = computed(() => props.option.holes.find((one) => one.hole === props.hole) ?? null)
const scale = 28 / 100e-6
const clamp = (value: number) => Math.max(-26, Math.min(56, value))
const y = (metres: number) => DECK - clamp(metres * scale)
const TONE = { in: 'fill-part', out: 'fill-out', 'cannot tell': 'fill-unsure' } as Record<string, string>
const words = computed(() =>
  row.value
    ? lengthText(row.value.value.value_m, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
    : '',
)
</script>

<template>
  <svg
    v-legible
    viewBox="0 0 200 124"
    class="block w-full max-w-64"
    role="img"
    :aria-label="`Hole ${hole} in section`"
  >
    <template v-if="row">
      <rect
        x="0"
        :y="y(row.greatest_m)"
        width="96"
        :height="y(row.least_m) - y(row.greatest_m)"
        class="fill-track"
      />
      <path
        v-for="limit in [row.least_m, row.greatest_m]"
        :key="limit"
        :d="`M0 ${y(limit)}H96`"
        class="stroke-ink"
        stroke-width="1.4"
        stroke-dasharray="5 4"
      />
      <path :d="`M0 ${DECK}H104V100H132V124H0Z`" class="fill-iron stroke-ink-soft" stroke-width="1.4" />
      <rect
        v-if="option.skim_m"
        x="0"
        :y="DECK"
        width="104"
        height="10"
        class="fill-none stroke-act"
        stroke-width="1.4"
        stroke-dasharray="3 3"
      />
      <path
        :d="`M106 ${y(row.value.value_m)}H200V124H134V${option.kind === 'cut and shim' || option.kind === 'let a ring in' ? 88 : 99}H106Z`"
        class="fill-part-wash stroke-part"
        stroke-width="2.4"
      />
      <rect v-if="option.kind === 'cut and shim'" x="106" y="89" width="26" height="11" class="fill-ink" />
      <rect v-if="option.kind === 'let a ring in'" x="88" y="89" width="44" height="20" class="fill-part" />
      <text
        x="194"
        :y="Math.max(y(row.value.value_m) + 20, 24)"
        text-anchor="end"
        font-size="19"
        class="num font-bold"
        :class="TONE[row.state ?? ''] ?? 'fill-ink'"
      >
        {{ words }}
      </text>
    </template>
  </svg>
</template>
