<script setup lang="ts">
import { computed } from 'vue'

import type { HoleView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import SmallLength from '@/shared/ui/SmallLength.vue'

/** The ledge of one hole in the table, and its parts held against its reading. */
const props = defineProps<{ hole: HoleView }>()
const digits = useGaugeDigits()
const parts = computed(() => props.hole.parts)
const size = (metres: number | null | undefined) =>
  typeof metres === 'number'
    ? lengthText(metres, SIZE_WITH[unit.value], { digits: digits.size('counterbore depth') })
    : '–'
</script>

<template>
  <td class="px-2 text-right">
    <SmallLength
      v-if="parts.ledge"
      :metres="parts.ledge.squareness_m"
      :expanded="parts.ledge.squareness_expanded_m"
      :signed="false"
    />
    <span v-else class="text-ink-soft">–</span>
  </td>
  <td class="num px-2 text-right font-bold">{{ size(parts.ledge_m) }}</td>
  <td class="num px-2 text-right">{{ size(parts.ledge?.left_m) }}</td>
  <td class="px-2 text-right">
    <SmallLength
      v-if="parts.predicted_m !== null"
      :metres="parts.predicted_m"
      :expanded="parts.predicted_expanded_m"
    />
    <span v-else class="text-ink-soft" :title="parts.missing.join(', ')">–</span>
  </td>
  <td class="px-2 text-right" :class="parts.agrees === false && 'font-bold text-unsure'">
    <SmallLength v-if="hole.mean_m !== null" :metres="hole.mean_m" :expanded="hole.mean_expanded_m" />
    <span v-else class="text-ink-soft">–</span>
  </td>
</template>
