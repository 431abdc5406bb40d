<script setup lang="ts">
import { computed } from 'vue'

import type { HoleView } from '@/api/generated'
import { sizeText, smallText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Mean, tilt with its high side, and what the parts give, in one line. */
const props = defineProps<{ hole: HoleView }>()

const words = computed(() => {
  const { mean_m, mean_expanded_m, high_to_low_m, high_side_hour, parts, least_m, greatest_m } = props.hole
  const limits = [least_m, greatest_m]
  const said: string[] = []
  if (mean_m !== null) said.push(`mean ${smallText(mean_m, mean_expanded_m, unit.value, { limits })}`)
  if (high_to_low_m !== null && high_side_hour !== null) {
    const tilt = smallText(high_to_low_m, props.hole.variation_expanded_m, unit.value, { signed: false })
    said.push(`plane ${tilt} high to low, high at ${nearestHalf(high_side_hour)}h`)
  }
  if (parts.predicted_m !== null) {
    said.push(
      `parts give ${smallText(parts.predicted_m, parts.predicted_expanded_m, unit.value, { limits })}`,
    )
  }
  if (parts.between_m > 0) said.push(`${sizeText(parts.between_m, unit.value)} between, counted once`)
  return said.join(' · ')
})

/** Clock positions are typed to the half hour; 0 is written 12. */
function nearestHalf(hour: number): number {
  return (Math.round(hour * 2) / 2) % 12 || 12
}
</script>

<template>
  <p v-if="words" class="text-sm text-ink-soft">{{ words }}</p>
</template>
