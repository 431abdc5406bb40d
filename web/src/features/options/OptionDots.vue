<script setup lang="ts">
import { computed } from 'vue'

import type { OptionOfHole } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Every hole afterwards against its own limits, and its height below. */
const props = defineProps<{ option: OptionOfHole; high: number; low: number }>()
const WIDE = 172
const x = (at: number) => ((at + 0.5) * WIDE) / props.option.holes.length
const half = computed(() => WIDE / props.option.holes.length / 2)
const y = (metres: number) => 8 + ((props.high - metres) / (props.high - props.low || 1)) * 66
const FILL = { in: 'fill-part', out: 'fill-out', 'cannot tell': 'fill-unsure' } as Record<string, string>
const small = (metres: number) => lengthText(metres, unit.value, { digits: 0 })
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${WIDE} 118`"
    class="block w-full max-w-72"
    role="img"
    :aria-label="`All holes: ${option.kind}`"
  >
    <g v-for="(one, at) in option.holes" :key="one.hole">
      <rect
        :x="x(at) - half"
        :y="y(one.greatest_m)"
        :width="half * 2"
        :height="y(one.least_m) - y(one.greatest_m)"
        class="fill-track"
      />
      <path
        v-for="limit in [one.least_m, one.greatest_m]"
        :key="limit"
        :d="`M${x(at) - half} ${y(limit)}h${half * 2}`"
        class="stroke-ink"
        stroke-width="1"
        stroke-dasharray="4 3"
      />
      <path
        :d="`M${x(at)} ${y(one.value.value_m + one.value.expanded_m)}V${y(one.value.value_m - one.value.expanded_m)}`"
        class="stroke-ink-soft"
        stroke-width="1.6"
      />
      <circle
        v-if="one.state"
        :cx="x(at)"
        :cy="y(one.value.value_m)"
        r="5"
        :class="FILL[one.state] ?? 'fill-ink'"
      />
      <path v-else :d="`M${x(at) - 6} ${y(one.value.value_m)}h12`" class="stroke-part" stroke-width="3" />
      <text
        v-if="option.holes.length <= 6 || at % 2 === 0"
        :x="x(at)"
        y="97"
        text-anchor="middle"
        font-size="13"
        class="num"
        :class="FILL[one.state ?? ''] ?? 'fill-ink'"
      >
        {{ small(one.value.value_m) }}
      </text>
      <text :x="x(at)" y="114" text-anchor="middle" font-size="13" class="fill-ink-soft">{{ one.hole }}</text>
    </g>
  </svg>
</template>
