<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'

import type { HoleResidualView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Residuals as stems from nought, hole by hole with liner and make: what adds up lies on the line. */
const props = defineProps<{ holes: readonly HoleResidualView[] }>()
/** Half as wide on a phone, so that its words stay as large. */
const narrow = useMediaQuery('(max-width: 640px)')
const wide = computed(() => (narrow.value ? 390 : 760))
const TALL = 210
const left = computed(() => (narrow.value ? 18 : 56))
const ends = computed(() => {
  const all = props.holes.flatMap((one) => [
    one.residual.value_m - one.residual.expanded_m,
    one.residual.value_m + one.residual.expanded_m,
  ])
  return { low: Math.min(-20e-6, ...all) * 1.1, high: Math.max(20e-6, ...all) * 1.1 }
})
const y = (metres: number) =>
  46 + ((ends.value.high - metres) / (ends.value.high - ends.value.low)) * (TALL - 80)
const x = (at: number) => left.value + ((at + 0.5) * (wide.value - left.value)) / props.holes.length
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
</script>

<template>
  <svg
    :viewBox="`0 0 ${wide} ${TALL}`"
    class="block w-full"
    role="img"
    aria-label="As read less as the parts say"
  >
    <path :d="`M${left} ${y(0)}H${wide}`" class="stroke-ink" stroke-width="1.6" />
    <text :x="left - 6" :y="y(0) + 5" text-anchor="end" font-size="14" class="num fill-ink-soft">0</text>
    <g v-for="(one, at) in holes" :key="one.hole">
      <text :x="x(at)" y="18" text-anchor="middle" font-size="18" class="fill-ink font-bold">
        {{ one.hole }}
      </text>
      <text :x="x(at)" y="36" text-anchor="middle" font-size="13" class="fill-ink-soft">
        {{ one.liner }} {{ narrow ? '' : one.make }}
      </text>
      <path
        :d="`M${x(at)} ${y(0)}V${y(one.residual.value_m)}`"
        :class="one.adds_up ? 'stroke-part' : 'stroke-unsure'"
        stroke-width="3"
      />
      <path
        :d="`M${x(at)} ${y(one.residual.value_m + one.residual.expanded_m)}V${y(one.residual.value_m - one.residual.expanded_m)}`"
        class="stroke-ink-soft"
        stroke-width="1.4"
      />
      <circle
        :cx="x(at)"
        :cy="y(one.residual.value_m)"
        r="6"
        :class="one.adds_up ? 'fill-part' : 'fill-unsure'"
      />
      <text
        :x="x(at) + (narrow ? 0 : 12)"
        :y="y(one.residual.value_m) + (one.residual.value_m < 0 ? 22 : -10)"
        :text-anchor="narrow ? 'middle' : 'start'"
        font-size="16"
        class="num font-bold"
        :class="one.adds_up ? 'fill-part' : 'fill-unsure'"
      >
        {{ small(one.residual.value_m) }}
      </text>
    </g>
  </svg>
</template>
