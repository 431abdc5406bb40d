<script setup lang="ts">
import { computed } from 'vue'

import type { BoreTerms, Limit } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import { boresOf, useCard } from './cardDraft'
import LengthField from './LengthField.vue'
import LimitRow from './LimitRow.vue'
import RowList from './RowList.vue'

/** Bores: travel of the rings, thrust side, plate as in the build, honing stock, walls, and the ladder of steps. */
const draft = useCard()
const bores = computed<BoreTerms>(() => boresOf(draft.value.card))
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
const size = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'inch'))
const SIZES: [keyof BoreTerms & ('ring_top' | 'ring_bottom' | 'wall' | 'least_wall'), string][] = [
  ['ring_top', 'top ring turns, below the deck'],
  ['ring_bottom', 'lowest ring turns'],
  ['wall', 'wall by drawing, a side'],
  ['least_wall', 'least wall, a side'],
]
const SMALLS: [keyof BoreTerms & ('hone_stock' | 'centre_move' | 'rebore' | 'runs_with'), string][] = [
  ['hone_stock', 'left for the hone, on the diameter'],
  ['centre_move', 'centre may move by'],
  ['rebore', 'one re-bore, on the diameter'],
  ['runs_with', 'clearance of the piston as it runs'],
]
const RUNS: [keyof BoreTerms & ('bore_runs_c' | 'piston_runs_c'), string][] = [
  ['bore_runs_c', 'bore runs at'],
  ['piston_runs_c', 'piston runs at'],
]
const JUDGED = [
  { value: 'as read', label: 'as it is read' },
  { value: 'clamped', label: 'clamped, as under its head' },
  { value: 'free', label: 'free' },
]
const KINDS = ['on the shelf', 'to order', 'in an old book, to be made'].map((value) => ({
  value,
  label: value,
}))
const number = (text: string | number | null | undefined) =>
  text === null || text === undefined || String(text).trim() === '' ? null : Number(text)
const ladder = computed(() => bores.value.ladder ?? [])
</script>

<template>
  <fieldset class="grid gap-2">
    <legend class="text-lg font-bold">Bores</legend>
    <LimitRow
      v-for="[name, label] in SIZES"
      :key="name"
      v-model="bores[name] as Limit"
      :label="label"
      :path="`bores.${name}`"
      :unit="size"
    />
    <LimitRow
      v-for="[name, label] in SMALLS"
      :key="name"
      v-model="bores[name] as Limit"
      :label="label"
      :path="`bores.${name}`"
      :unit="small"
    />
    <div class="grid gap-3 sm:grid-cols-5">
      <ChoiceField
        v-model="bores.judged as string"
        label="Its limits are for the bore"
        :choices="JUDGED"
        path="bores.judged"
      />
      <TextField
        :model-value="bores.thrust_hour ?? ''"
        label="Thrust side"
        unit="h"
        path="bores.thrust_hour"
        @update:model-value="bores.thrust_hour = number($event)"
      />
      <TextField
        v-model="bores.plate_fasteners as string"
        label="Head is held by"
        path="bores.plate_fasteners"
      />
      <TextField v-model="bores.plate_gasket as string" label="gasket" path="bores.plate_gasket" />
      <TextField
        :model-value="bores.plate_torque_nm ?? ''"
        label="torque [N·m]"
        path="bores.plate_torque_nm"
        @update:model-value="bores.plate_torque_nm = number($event)"
      />
      <TextField
        v-for="[name, label] in RUNS"
        :key="name"
        :model-value="bores[name] ?? ''"
        :label="label"
        unit="°C"
        :path="`bores.${name}`"
        @update:model-value="bores[name] = number($event)"
      />
    </div>
    <RowList
      v-slot="{ item, index }"
      :items="ladder"
      columns="max-w-4xl grid-cols-[1fr_1.4fr_1fr_2fr_auto]"
      add-label="Add a step of the ladder"
      @add="bores.ladder = [...ladder, { oversize: { typed: '' }, kind: 'to order', weeks: null, note: '' }]"
      @remove="(index) => (bores.ladder = ladder.filter((_, at) => at !== index))"
    >
      <LengthField
        v-model="item.oversize"
        label="Oversize"
        :unit="small"
        :path="`bores.ladder.${index}.oversize`"
        :hide-label="index > 0"
      />
      <ChoiceField
        v-model="item.kind as string"
        label="is"
        :choices="KINDS"
        :path="`bores.ladder.${index}.kind`"
        :hide-label="index > 0"
      />
      <TextField
        :model-value="item.weeks ?? ''"
        label="weeks"
        :path="`bores.ladder.${index}.weeks`"
        :hide-label="index > 0"
        @update:model-value="item.weeks = number($event)"
      />
      <TextField
        v-model="item.note as string"
        label="note"
        :path="`bores.ladder.${index}.note`"
        :hide-label="index > 0"
      />
    </RowList>
    <label class="flex items-center gap-2 text-sm">
      <input v-model="bores.all_alike" type="checkbox" /> all bores of the block are finished to one size
    </label>
  </fieldset>
</template>
