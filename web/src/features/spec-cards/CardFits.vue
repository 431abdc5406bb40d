<script setup lang="ts">
import { computed } from 'vue'

import type { FitTerms, Limit } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import { fitsOf, useCard } from './cardDraft'
import LimitRow from './LimitRow.vue'
import RowList from './RowList.vue'

/** Fits: the press wanted by each school, the walls, how a liner goes in, what holds it hot. */
const draft = useCard()
const fits = computed<FitTerms>(() => fitsOf(draft.value.card))
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
const size = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'inch'))
const SCHOOLS = ['light', 'firm'] as const
const WINDOW = ['least', 'aim', 'greatest'] as const
type SizeName =
  | 'boss_outside'
  | 'liner_inside'
  | 'liner_length'
  | 'lead_in'
  | 'least_liner_wall'
  | 'least_boss_wall'
  | 'seat_depth'
const SIZES: [SizeName, string][] = [
  ['boss_outside', 'outside of the block’s wall'],
  ['liner_inside', 'liner’s bore before it goes in'],
  ['liner_length', 'liner’s length'],
  ['lead_in', 'lead-in at its foot'],
  ['least_liner_wall', 'least wall of the liner'],
  ['least_boss_wall', 'least wall of the block'],
  ['seat_depth', 'its seat below the deck'],
]
const SMALLS: ['bore_rz' | 'liner_rz' | 'neighbour_gap', string][] = [
  ['bore_rz', 'roughness Rz of the hole'],
  ['liner_rz', 'roughness Rz of the liner'],
  ['neighbour_gap', 'least gap to its neighbour'],
]
const as = (values: string[]) => values.map((value) => ({ value, label: value }))
const STOPS = as(['stop at contact', 'hold under load'])
const HOLDERS = as(['not known', 'the head clamps it', 'retaining compound', 'nothing'])
const SEATS = as(['top flange', 'landing part-way', 'bottom seat'])
type NumberName = 'dwell_kn' | 'dwell_min' | 'clamp_kn' | 'clamp_loss_kn' | 'drag_kn' | 'compound_cure_h'
const NUMBERS: [NumberName, string][] = [
  ['dwell_kn', 'load when home [kN]'],
  ['dwell_min', 'held for [min]'],
  ['clamp_kn', 'the head presses it with [kN]'],
  ['clamp_loss_kn', 'lost each 0.01 mm it shrinks back [kN]'],
  ['drag_kn', 'pistons pull at it with [kN]'],
  ['compound_cure_h', 'compound cures in [h]'],
]
const number = (text: string | number | null | undefined) =>
  text === null || text === undefined || String(text).trim() === '' ? null : Number(text)
const running = computed(() => fits.value.running ?? [])
</script>

<template>
  <fieldset class="grid gap-2">
    <legend class="text-lg font-bold">Fits</legend>
    <template v-for="school in SCHOOLS" :key="school">
      <LimitRow
        v-for="name in WINDOW"
        :key="`${school}.${name}`"
        v-model="fits[school]![name] as Limit"
        :label="`${school} press, ${name}`"
        :path="`fits.${school}.${name}`"
        :unit="small"
      />
    </template>
    <LimitRow
      v-for="[name, label] in SIZES"
      :key="name"
      v-model="fits[name] as Limit"
      :label="label"
      :path="`fits.${name}`"
      :unit="size"
    />
    <LimitRow
      v-for="[name, label] in SMALLS"
      :key="name"
      v-model="fits[name] as Limit"
      :label="label"
      :path="`fits.${name}`"
      :unit="small"
    />
    <div class="grid gap-3 sm:grid-cols-3">
      <ChoiceField
        v-model="fits.stop as string"
        label="When the flange touches"
        :choices="STOPS"
        path="fits.stop"
      />
      <ChoiceField v-model="fits.seat as string" label="It stands on" :choices="SEATS" path="fits.seat" />
      <ChoiceField
        v-model="fits.holder as string"
        label="Held hot by"
        :choices="HOLDERS"
        path="fits.holder"
      />
      <TextField
        v-for="[name, label] in NUMBERS"
        :key="name"
        :model-value="fits[name] ?? ''"
        :label="label"
        :path="`fits.${name}`"
        @update:model-value="fits[name] = number($event)"
      />
      <TextField
        v-model="fits.holding_source as string"
        label="where that is from"
        path="fits.holding_source"
      />
      <TextField
        v-model="fits.compound as string"
        label="Compound, on the liner above its seat"
        path="fits.compound"
      />
      <TextField v-model="fits.seals as string" label="Seals, in their order, and grease" path="fits.seals" />
    </div>
    <RowList
      v-slot="{ item, index }"
      :items="running"
      columns="max-w-2xl grid-cols-[2fr_1fr_1fr_auto]"
      add-label="Add a moment of running"
      @add="fits.running = [...running, { name: '', block_c: 80, liner_c: 120 }]"
      @remove="(index) => (fits.running = running.filter((_, at) => at !== index))"
    >
      <TextField
        v-model="item.name"
        label="When"
        :path="`fits.running.${index}.name`"
        :hide-label="index > 0"
      />
      <TextField
        :model-value="item.block_c"
        label="block [°C]"
        :path="`fits.running.${index}.block_c`"
        :hide-label="index > 0"
        @update:model-value="item.block_c = number($event) ?? 0"
      />
      <TextField
        :model-value="item.liner_c"
        label="liner [°C]"
        :path="`fits.running.${index}.liner_c`"
        :hide-label="index > 0"
        @update:model-value="item.liner_c = number($event) ?? 0"
      />
    </RowList>
  </fieldset>
</template>
