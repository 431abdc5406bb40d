<script setup lang="ts">
import { computed } from 'vue'

import type { HoleView } from '@/api/generated'
import type { Lens } from '@/shared/charts/rings'
import { sizeText, smallText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** The hole in one line: mean, tilt and what the parts give, or how its ledge stands. */
const props = defineProps<{ hole: HoleView; lens: Lens }>()

const words = computed(() => (props.lens === 'protrusion' ? protrusionWords() : ledgeWords()))

function protrusionWords(): string {
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
}

function ledgeWords(): string {
  const { ledge, ledge_depths, ledge_m } = props.hole.parts
  if (ledge === null)
    return ledge_depths.length ? 'three positions or more show how square it is' : 'ledge not measured'
  const square = smallText(ledge.squareness_m, ledge.squareness_expanded_m, unit.value, { signed: false })
  const said = [`ledge square within ${square}, deepest at ${nearestHalf(ledge.deepest_hour)}h`]
  const worn = ledge_depths.filter((depth) => depth.worn).map((depth) => `${depth.hour}h`)
  if (worn.length) said.push(`worn at ${worn.join(', ')}`)
  if (ledge_m !== null) said.push(`flange rests at ${sizeText(ledge_m, unit.value)}`)
  if (ledge.left_m !== null)
    said.push(`${sizeText(ledge.left_m, unit.value, ledge.left_expanded_m)} of ledge left`)
  return said.join(' · ')
}

/** Clock positions are typed to the half hour; 0 is written 12. */
function nearestHalf(hour: number): number {
  return (Math.round(hour * 2) / 2) % 12 || 12
}
</script>

<template>
  <p v-if="words" class="text-sm text-ink-soft">{{ words }}</p>
</template>
