<script setup lang="ts">
import { computed } from 'vue'

import type { SwapEffectView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Effects as dots with their ±, group by group, on one scale. */
const props = defineProps<{ title: string; effects: readonly SwapEffectView[] }>()
const LEFT = 110
const WIDE = 400
const ROW = 26
const ends = computed(() => {
  const all = props.effects.flatMap((one) => [
    one.value.value_m - one.value.expanded_m,
    one.value.value_m + one.value.expanded_m,
    0,
  ])
  return { low: Math.min(...all), high: Math.max(...all) }
})
const x = (metres: number) =>
  LEFT + ((metres - ends.value.low) / (ends.value.high - ends.value.low || 1)) * (WIDE - LEFT - 12)
const rows = computed(() => [...props.effects].sort((a, b) => a.group - b.group))
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
</script>

<template>
  <figure class="grid gap-1">
    <figcaption class="text-sm text-ink-soft">{{ title }}</figcaption>
    <svg
      v-legible
      :viewBox="`0 0 ${WIDE} ${rows.length * ROW + 6}`"
      class="block w-full max-w-xl"
      role="img"
      :aria-label="title"
    >
      <path :d="`M${x(0)} 0V${rows.length * ROW}`" class="stroke-rule" stroke-width="1.5" />
      <g v-for="(one, at) in rows" :key="one.name" :transform="`translate(0 ${at * ROW + ROW / 2})`">
        <path
          v-if="at > 0 && one.group !== rows[at - 1]?.group"
          :d="`M0 ${-ROW / 2}H${WIDE}`"
          class="stroke-rule"
          stroke-width="1"
          stroke-dasharray="3 4"
        />
        <text x="0" y="5" font-size="15" class="fill-ink font-bold">{{ one.name }}</text>
        <text :x="LEFT - 10" y="5" font-size="15" text-anchor="end" class="num fill-ink">
          {{ small(one.value.value_m) }}
        </text>
        <path
          :d="`M${x(one.value.value_m - one.value.expanded_m)} 0H${x(one.value.value_m + one.value.expanded_m)}`"
          class="stroke-ink-soft"
          stroke-width="2"
        />
        <circle :cx="x(one.value.value_m)" cy="0" r="6" class="fill-part" />
      </g>
    </svg>
  </figure>
</template>
