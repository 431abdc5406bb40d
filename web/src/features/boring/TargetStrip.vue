<script setup lang="ts">
import { computed } from 'vue'

import type { BoreTargetView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import SumTerms from './SumTerms.vue'

/** The sum behind the size: piston and clearance, the hone's stock off, what is read warm, what a round size leaves. */
const props = defineProps<{ target: BoreTargetView }>()
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const small = (metres: number) => lengthText(metres, unit.value)
const terms = computed(() => {
  const t = props.target
  return [
    { sign: '', value: size(t.piston.value_m), unit: SIZE_WITH[unit.value], what: 'piston, skirt, at 20 °C' },
    {
      sign: '+',
      value: small(t.clearance_m),
      unit: unit.value,
      what:
        t.runs_with_m === null ? 'clearance wanted, cold' : `cold, for ${small(t.runs_with_m)} as it runs`,
    },
    { sign: '=', value: size(t.finished.value_m), unit: SIZE_WITH[unit.value], what: 'finished, at 20 °C' },
    { sign: '−', value: small(t.hone_stock_m), unit: unit.value, what: 'left for the hone' },
    {
      sign: '=',
      value: size(t.bored.value_m),
      unit: SIZE_WITH[unit.value],
      what: `bored to, ±${uncertaintyText(t.bored.expanded_m, unit.value)} as sure as the piston`,
    },
  ]
})
</script>

<template>
  <SumTerms :terms="terms">
    <p
      v-if="
        target.reads_large_m !== null && target.work_c !== null && Math.abs(target.reads_large_m) > 1.2e-6
      "
      class="border-l border-rule pl-4"
    >
      <b class="num text-2xl text-unsure">{{ lengthText(target.reads_large_m, unit, { signed: true }) }}</b>
      <span class="ml-1 text-sm text-ink-soft">{{ unit }}</span>
      <span class="block text-sm text-ink-soft"
        >reads so now, block at {{ target.work_c.toFixed(1) }} °C</span
      >
    </p>
    <p v-if="target.near" class="border-l border-rule pl-4">
      <b :class="target.near.is_inside ? '' : 'text-out'">the round {{ size(target.near.size_m) }}</b>
      <span class="block text-sm text-ink-soft"
        >would leave {{ small(target.near.leaves.value_m) }}, not {{ small(target.clearance_m) }}</span
      >
    </p>
  </SumTerms>
</template>
