<script setup lang="ts">
import { computed } from 'vue'

import type { LearnedCutterView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

/** Every finished run as a point, passes against change by the gauge, with the line through the origin. */
const props = defineProps<{ learned: LearnedCutterView }>()
const [HEIGHT, LEFT, LOW] = [230, 60, 198]
const phone = usePhone()
const width = computed(() => (phone.value ? 350 : 640))
const most = computed(() => ({
  passes: Math.max(1, ...props.learned.runs.map((one) => one.passes)) * 1.1,
  change: Math.max(1e-6, ...props.learned.runs.map((one) => one.change_m)) * 1.15,
}))
const x = (passes: number) => LEFT + (passes / most.value.passes) * (width.value - LEFT - 20)
const y = (change: number) => LOW - (change / most.value.change) * (LOW - 12)
const slope = computed(() => props.learned.graduation_m?.value ?? null)
const ticks = computed(() => {
  const step = Math.max(1, Math.round(most.value.passes / 5))
  return Array.from({ length: Math.floor(most.value.passes / step) }, (_, at) => (at + 1) * step)
})
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${width} ${HEIGHT}`"
    class="block w-full max-w-2xl"
    role="img"
    aria-label="Passes against change"
  >
    <path :d="`M${LEFT} 8V${LOW}H${width - 12}`" class="fill-none stroke-ink-soft" />
    <g font-size="13" class="fill-ink-soft">
      <g v-for="tick in ticks" :key="tick">
        <path :d="`M${x(tick)} ${LOW}v5`" class="stroke-ink-soft" />
        <text :x="x(tick)" :y="LOW + 19" text-anchor="middle">{{ tick }}</text>
      </g>
      <text :x="width - 12" :y="LOW + 19" text-anchor="end">passes</text>
      <text :x="LEFT - 6" y="20" text-anchor="end">{{ lengthText(most.change / 1.15, unit) }}</text>
      <text :x="LEFT + 6" y="18">change by the gauge [{{ unit }}]</text>
    </g>
    <path
      v-if="slope !== null"
      :d="`M${x(0)} ${y(0)}L${x(most.passes)} ${y(slope * most.passes)}`"
      class="stroke-part"
      stroke-width="2"
    />
    <g v-for="(one, at) in learned.runs" :key="at">
      <circle
        :cx="x(one.passes)"
        :cy="y(one.change_m)"
        r="6"
        class="fill-sheet stroke-ink"
        stroke-width="2"
      />
      <title>{{ one.job }}, hole {{ one.hole }}</title>
      <text
        :x="x(one.passes)"
        :y="y(one.change_m) + (at % 2 ? 22 : -11)"
        text-anchor="middle"
        font-size="13"
        class="fill-ink"
      >
        {{ one.hole }}
      </text>
    </g>
  </svg>
</template>
