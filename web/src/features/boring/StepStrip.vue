<script setup lang="ts">
import { computed } from 'vue'

import type { MadeToBoreView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import SumTerms from './SumTerms.vue'

/** The size of a bore whose piston is made to it: the nominal and the step that was decided. */
const props = defineProps<{ made: MadeToBoreView }>()
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const terms = computed(() => {
  const { nominal_m, over_m, finished_m, stock_m, bored_m, is_honed } = props.made
  const first = [
    { sign: '', value: size(nominal_m), unit: SIZE_WITH[unit.value], what: 'nominal, at 20 °C' },
    { sign: '+', value: lengthText(over_m, unit.value), unit: unit.value, what: 'the step that was decided' },
    { sign: '=', value: size(finished_m), unit: SIZE_WITH[unit.value], what: 'finished, at 20 °C' },
  ]
  if (!is_honed) return first
  return [
    ...first,
    { sign: '−', value: lengthText(stock_m, unit.value), unit: unit.value, what: 'left for the hone' },
    { sign: '=', value: size(bored_m), unit: SIZE_WITH[unit.value], what: 'bored to' },
  ]
})
</script>

<template>
  <SumTerms :terms="terms">
    <p class="max-w-72 border-l border-rule pl-4 text-sm">
      The card knows no piston: it is turned to this bore, its rings with it.
      {{ made.is_honed ? '' : 'A bored finish is enough, by the school of this job.' }}
    </p>
  </SumTerms>
</template>
