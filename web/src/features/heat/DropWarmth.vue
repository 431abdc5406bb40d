<script setup lang="ts">
import { computed, ref } from 'vue'

import type { DropView, HeatMarkKind } from '@/api/generated'

import type { DropRun } from './useDrop'

/** What thermometers say of block, liner and room against the plan; one that does not talk is typed. */
const props = defineProps<{ run: DropRun; drop: DropView }>()
const tenths = (celsius: number) => celsius.toFixed(1).replace('-', '−')
const KINDS: readonly { kind: HeatMarkKind; label: string }[] = [
  { kind: 'block read', label: 'block' },
  { kind: 'liner read', label: 'liner' },
  { kind: 'room read', label: 'room' },
]
const kind = ref<HeatMarkKind>('block read')
const text = ref('')
const learned = computed(() => props.drop.learned)
const rows = computed(() => {
  const one = learned.value
  if (!one) return []
  const isOut = props.drop.out_at !== null
  return [
    {
      name: 'Block',
      now: one.block_now_c,
      start: one.block_c,
      within: one.block_within_k,
      planned: one.block_planned_c,
      reads: one.block_reads,
      isOut,
    },
    {
      name: 'Liner',
      now: one.liner_now_c,
      start: one.liner_c,
      within: one.liner_within_k,
      planned: one.liner_planned_c,
      reads: one.liner_reads,
      isOut,
    },
  ]
})
async function take(): Promise<void> {
  if (await props.run.note(kind.value, { celsius: text.value })) text.value = ''
}
</script>

<template>
  <section aria-label="Temperatures">
    <table class="w-full text-left">
      <thead class="text-sm text-ink-soft">
        <tr>
          <th class="font-normal" scope="col">°C</th>
          <th class="text-right font-normal" scope="col">now</th>
          <th class="text-right font-normal" scope="col">came out with</th>
          <th class="text-right font-normal" scope="col">read</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name" class="border-t border-rule">
          <th scope="row">{{ row.name }}</th>
          <td class="num pl-2 text-right text-xl font-bold">
            {{ row.now === null ? 'in' : tenths(row.now) }}
          </td>
          <td class="num text-right">
            {{ tenths(row.start) }} ±{{ row.within.toFixed(1) }}
            <span class="block text-sm text-ink-soft">planned {{ tenths(row.planned) }}</span>
          </td>
          <td class="num text-right" :class="row.reads === 0 && 'font-bold text-unsure'">
            {{ row.reads === 0 ? 'not yet' : `${row.reads} ×` }}
          </td>
        </tr>
        <tr v-if="learned" class="border-t border-rule">
          <th scope="row">Room</th>
          <td class="num text-right">{{ tenths(learned.air_c) }}</td>
          <td colspan="2" />
        </tr>
      </tbody>
    </table>
    <p class="text-sm text-ink-soft">
      What the gap conducts cannot be learned in air: that much of the band stays.
    </p>
    <form class="mt-1 flex flex-wrap items-end gap-2" @submit.prevent="take">
      <label class="grid text-sm"
        >read by hand
        <select v-model="kind" class="field min-h-11" name="kind">
          <option v-for="one in KINDS" :key="one.kind" :value="one.kind">{{ one.label }}</option>
        </select></label
      >
      <label class="grid text-sm"
        >°C or F<input v-model="text" class="field min-h-11 w-24" inputmode="decimal" name="celsius"
      /></label>
      <button type="submit" class="quiet min-h-11" :disabled="!text.trim()">Note it</button>
    </form>
  </section>
</template>
