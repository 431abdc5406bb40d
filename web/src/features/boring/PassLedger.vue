<script setup lang="ts">
import { computed } from 'vue'

import type { LedgerView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import { unit } from '@/shared/state/preferences'

/** Every pass in a line: the dial a side and what that is on the diameter, expected and measured, how far off. */
const props = defineProps<{ ledger: LedgerView }>()
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const small = (metres: number) => lengthText(metres, unit.value)
const most = computed(() => Math.max(1e-6, ...props.ledger.rows.map((row) => row.cut_m)))
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Passes">
    <table class="w-full border-collapse text-[0.95rem]">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b-2 border-ink align-bottom">
          <th scope="col" class="py-1 text-left font-normal">pass</th>
          <th scope="col" class="px-2 text-right font-normal">dial, a side<br />{{ unit }}</th>
          <th scope="col" class="px-2 text-left font-normal">on the diameter<br />{{ unit }}</th>
          <th scope="col" class="px-2 text-right font-normal">expected<br />{{ SIZE_WITH[unit] }}</th>
          <th scope="col" class="px-2 text-right font-normal">measured</th>
          <th scope="col" class="px-2 text-right font-normal">off<br />{{ unit }}</th>
          <th scope="col" class="px-2 text-right font-normal">min</th>
        </tr>
      </thead>
      <tbody>
        <tr class="border-b border-rule">
          <th scope="row" class="py-2 text-left font-normal">before, {{ ledger.start_at || 'not read' }}</th>
          <td colspan="3"></td>
          <td class="num px-2 text-right font-bold">
            <template v-if="ledger.start">{{ size(ledger.start.value_m) }}</template>
          </td>
          <td class="num px-2 text-right text-sm text-ink-soft">
            <template v-if="ledger.start">±{{ uncertaintyText(ledger.start.expanded_m, unit) }}</template>
          </td>
          <td></td>
        </tr>
        <tr v-for="(row, at) in ledger.rows" :key="row.passed_at" class="border-b border-rule align-top">
          <th scope="row" class="py-2 text-left font-normal">
            <b>{{ at + 1 }}</b> {{ row.kind }}
            <span class="block text-xs text-ink-soft"
              >{{ row.passed_by }}, {{ whenText(row.passed_at) }}{{ row.words ? `: ${row.words}` : '' }}</span
            >
          </th>
          <td class="num px-2 py-2 text-right text-lg font-bold">{{ small(row.dial_m) }}</td>
          <td class="px-2 py-2">
            <span class="flex items-center gap-2"
              ><i class="inline-block h-3 bg-act" :style="{ width: `${(row.cut_m / most) * 6}rem` }"></i
              ><span class="num">{{ small(row.cut_m) }}</span></span
            >
          </td>
          <td class="num px-2 py-2 text-right text-ink-soft">
            {{ row.expected_m === null ? '–' : size(row.expected_m) }}
          </td>
          <td class="num px-2 py-2 text-right text-lg font-bold">
            {{ row.measured_m === null ? 'not read' : size(row.measured_m) }}
          </td>
          <td class="num px-2 py-2 text-right">
            {{ row.off_m === null ? '' : lengthText(row.off_m, unit, { signed: true }) }}
          </td>
          <td class="num px-2 py-2 text-right">{{ row.minutes ?? '' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
