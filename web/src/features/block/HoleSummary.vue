<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type HoleView, readHoleBudgets } from '@/api/generated'
import type { ClockLens } from '@/shared/subjects'
import { otherSmall, sizeText, smallText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import BudgetDialog from '@/shared/ui/BudgetDialog.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** The hole in one line: mean, tilt and what the parts give, or how its ledge stands. */
const props = defineProps<{ hole: HoleView; lens: ClockLens }>()
const digits = useGaugeDigits()

const open = ref(false)
const budgets = () => ask(readHoleBudgets({ path: { hole_id: props.hole.hole_id } }))
const words = computed(() => (props.lens === 'protrusion' ? protrusionWords() : ledgeWords()))

function protrusionWords(): string {
  const { mean_m, mean_expanded_m, high_to_low_m, high_side_hour, parts, least_m, greatest_m } = props.hole
  const limits = [least_m, greatest_m]
  const said: string[] = []
  if (mean_m !== null)
    said.push(
      `mean ${smallText(mean_m, mean_expanded_m, unit.value, { limits, digits: digits.small('protrusion') })}, ` +
        smallText(mean_m, mean_expanded_m, otherSmall(unit.value), { limits }),
    )
  if (high_to_low_m !== null) {
    const tilt = smallText(high_to_low_m, props.hole.high_to_low_expanded_m, unit.value, { signed: false })
    const high =
      high_side_hour === null ? 'no high side to be told' : `high at ${nearestHalf(high_side_hour)}h`
    said.push(`plane ${tilt} high to low, ${high}`)
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
  const { ledge, ledge_depths, ledge_m, ledge_expanded_m } = props.hole.parts
  if (ledge === null)
    return ledge_depths.length ? 'three positions or more show how square it is' : 'ledge not measured'
  const square = smallText(ledge.squareness_m, ledge.squareness_expanded_m, unit.value, { signed: false })
  const deepest = ledge.deepest_hour === null ? '' : `, deepest at ${nearestHalf(ledge.deepest_hour)}h`
  const said = [`ledge square within ${square}${deepest}`]
  const worn = ledge_depths.filter((depth) => depth.worn).map((depth) => `${depth.hour}h`)
  if (worn.length) said.push(`worn at ${worn.join(', ')}`)
  if (ledge.proud_hours.length)
    said.push(`a burr or dirt at ${ledge.proud_hours.map((h) => `${h}h`).join(', ')}`)
  if (ledge_m !== null) said.push(`flange rests at ${sizeText(ledge_m, unit.value, ledge_expanded_m)}`)
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
  <p v-if="words" class="text-sm text-ink-soft">
    {{ words }}
    <button type="button" class="link" @click="open = true">open the ±</button>
  </p>
  <p v-if="lens === 'counterbore' && hole.parts.ledge?.says" class="text-sm text-unsure">
    {{ hole.parts.ledge.says }}
  </p>
  <p v-if="lens === 'protrusion' && hole.clustered" class="text-sm text-unsure">
    <PhraseText :phrase="hole.clustered" />
  </p>
  <p v-if="hole.parts.doubt" class="text-sm text-unsure">{{ hole.parts.doubt }}</p>
  <BudgetDialog
    :open="open"
    :title="`How far hole ${hole.number} can be trusted`"
    :fetch="budgets"
    @close="open = false"
  />
</template>
