<script setup lang="ts">
import { computed } from 'vue'

import type { DeckMarkView, FindingView, PreparationView } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Every mark with what it asks for, wear with the reading that it explains, and what a skim would do. */
const props = defineProps<{ ready: PreparationView }>()
const emit = defineEmits<{ notes: [finding: FindingView] }>()
const TONE: Partial<Record<DeckMarkView['verdict'], string>> = {
  'may stay': 'text-in',
  'skim or repair': 'text-out',
  'a cut takes it': 'text-part',
}
const depth = (one: FindingView) =>
  one.length_m === null ? '' : `${exactSmall(one.length_m, unit.value)} ${unit.value}`
const sizeOf = (metres: number) =>
  lengthText(metres, SIZE_WITH[unit.value], { digits: unit.value === 'µm' ? 2 : 3 })
const where = (one: FindingView) => {
  const from = one.hour === null ? '' : hourText(one.hour)
  const to = one.until_hour === null ? '' : ` to ${hourText(one.until_hour)}`
  const off =
    one.distance_m === null ? '' : `, ${sizeOf(one.distance_m)} ${SIZE_WITH[unit.value]} off the edge`
  return `${from}${to}${off}`
}
const says = (one: DeckMarkView) =>
  one.skim_m > 0
    ? `${one.words}: skim ${exactSmall(one.skim_m, unit.value)} ${unit.value}, or repair`
    : one.words
const signed = (metres: number) => exactSmall(metres, unit.value, { signed: true })
const tone = (keeps: boolean | null) => (keeps === false ? 'font-bold text-out' : keeps ? 'text-in' : '')
const compression = computed(() =>
  props.ready.compression_before === null || props.ready.compression_after === null
    ? ''
    : `${props.ready.compression_before.toFixed(2)} → ${props.ready.compression_after.toFixed(2)} : 1`,
)
</script>

<template>
  <div class="grid gap-x-8 gap-y-3 xl:grid-cols-2">
    <section aria-label="Marks and wear">
      <h2 class="border-b border-ink text-lg">Marks and wear</h2>
      <p v-if="ready.marks.length + ready.wear.length === 0" class="py-2 text-ink-soft">
        None written down. Point to one on the picture.
      </p>
      <ul>
        <li v-for="one in ready.marks" :key="one.finding.finding_id" class="border-b border-rule py-1">
          <b>{{ one.finding.hole }}</b> {{ one.finding.word }} on the {{ one.finding.part }},
          {{ where(one.finding)
          }}<template v-if="depth(one.finding)">, {{ depth(one.finding) }} deep</template>
          <span class="block text-sm" :class="TONE[one.verdict] ?? 'text-unsure'"
            ><b>{{ one.verdict }}</b
            >: {{ says(one) }}
            <button type="button" class="link ml-2 text-ink" @click="emit('notes', one.finding)">
              {{ one.finding.notes ? `${one.finding.notes} notes` : 'photo' }}
            </button></span
          >
        </li>
        <li v-for="one in ready.wear" :key="one.finding_id" class="border-b border-rule py-1">
          <b>{{ one.hole }}</b> {{ one.word }}, {{ one.part }}, {{ where(one)
          }}<template v-if="depth(one)">, {{ depth(one) }} deep</template>
          <span class="block text-sm text-ink-soft"
            >{{ one.explains ? `explains ${one.explains}` : one.words }}
            <button type="button" class="link ml-2 text-ink" @click="emit('notes', one)">
              {{ one.notes ? `${one.notes} notes` : 'photo' }}
            </button></span
          >
        </li>
      </ul>
    </section>
    <section v-if="ready.dependents.length" aria-label="What a skim would change">
      <h2 class="border-b border-ink text-lg">
        {{
          ready.skim_m > 0
            ? `A skim of ${exactSmall(ready.skim_m, unit)} ${unit} would change`
            : 'What hangs on the deck'
        }}
      </h2>
      <table class="w-full text-left">
        <thead class="text-sm text-ink-soft">
          <tr>
            <th class="font-normal"><span class="sr-only">kind</span></th>
            <th class="text-right font-normal">now [{{ SIZE_WITH[unit] }}]</th>
            <th class="text-right font-normal">skim [{{ unit }}]</th>
            <th class="text-right font-normal">after [{{ SIZE_WITH[unit] }}]</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in ready.dependents" :key="one.name" class="border-b border-rule">
            <th class="py-1 font-normal">{{ one.name }}</th>
            <td class="num text-right">
              {{ one.now_m === null ? 'every liner' : sizeOf(one.now_m) }}
            </td>
            <td class="num text-right">{{ signed(one.by_skim_m) }}</td>
            <td class="num text-right" :class="tone(one.keeps)">
              {{ one.after_m === null ? '' : sizeOf(one.after_m) }}{{ one.keeps === false ? ' outside' : '' }}
            </td>
          </tr>
          <tr v-if="compression" class="border-b border-rule">
            <th class="py-1 font-normal">compression</th>
            <td class="num text-right" colspan="3">{{ compression }}</td>
          </tr>
        </tbody>
      </table>
      <p class="pt-1 text-sm text-ink-soft">
        A shim under one liner raises that liner alone: piston heights and compression stay.
      </p>
    </section>
  </div>
</template>
