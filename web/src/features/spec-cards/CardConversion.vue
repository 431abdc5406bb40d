<script setup lang="ts">
import { computed } from 'vue'

import type { ConversionTerms, Limit } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import { conversionOf, useCard } from './cardDraft'
import LimitRow from './LimitRow.vue'
import RowList from './RowList.vue'

/** A conversion: left proud and decked, registers, insert, rod, fire ring, studs, compound, seals. */
const draft = useCard()
const terms = computed<ConversionTerms>(() => conversionOf(draft.value.card))
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
const size = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'inch'))
type Name = {
  [Key in keyof ConversionTerms]-?: NonNullable<ConversionTerms[Key]> extends Limit ? Key : never
}[keyof ConversionTerms]
const SMALL: readonly [Name, string][] = [
  ['proud_least', 'left proud, least'],
  ['proud_greatest', 'left proud, greatest'],
  ['clean_up', 'what cleans the deck up'],
  ['off_line', 'registers off line, at most'],
  ['fire_ring', 'fire ring, free thickness'],
  ['gasket_clamped', 'gasket, clamped'],
  ['liner_groove', 'groove in the liner, depth'],
  ['head_groove', 'groove in the head, depth'],
  ['crush_least', 'crush that seals, least'],
  ['crush_greatest', 'crush, greatest'],
  ['compound_gap', 'gap the compound fills, on Ø'],
]
const SIZE: readonly [Name, string][] = [
  ['least_flange', 'least flange after decking'],
  ['upper_register', 'upper register below the deck'],
  ['lower_register', 'lower register below the deck'],
  ['register_length', 'length of each register'],
  ['insert_inside', 'deck insert, inside'],
  ['rod_length', 'rod between its eyes'],
  ['rod_width', 'rod across its shank'],
  ['rod_clear', 'kept clear of the rod'],
  ['big_end', 'rod across its bolts'],
  ['crank_depth', 'crank below the deck'],
  ['crank_offset', 'crank stands off the bore by'],
  ['stud_diameter', 'stud, diameter that carries'],
  ['stud_length', 'stud, length'],
  ['stud_clamped', 'stud, clamped length'],
  ['stud_thread', 'thread wanted in the block'],
  ['compound_band', 'width of the compound’s band'],
]
const WINDOW = ['least', 'aim', 'greatest'] as const
const NUMBERS: readonly ['studs' | 'stud_kn' | 'offset_hour', string][] = [
  ['studs', 'studs of a head'],
  ['stud_kn', 'each pulls [kN]'],
  ['offset_hour', 'crank stands off towards [h]'],
]
const GROOVES = ['liner', 'block'].map((value) => ({ value, label: `groove in the ${value}` }))
const LENGTHS: readonly ['groove_diameter' | 'groove_width' | 'inside' | 'section', string][] = [
  ['groove_diameter', 'groove floor Ø'],
  ['groove_width', 'groove width'],
  ['inside', 'ring inside'],
  ['section', 'ring section'],
]
const number = (text: string | number | null | undefined) =>
  text === null || text === undefined || String(text).trim() === '' ? null : Number(text)
const seals = computed(() => terms.value.seals ?? [])
function addSeal(): void {
  const none = () => ({ typed: '', um: '0' })
  const ring = {
    name: '',
    groove_in: 'liner' as const,
    material: '',
    coldest_c: null,
    warmest_c: null,
    grease: '',
  }
  terms.value.seals = [
    ...seals.value,
    { ...ring, groove_diameter: none(), groove_width: none(), inside: none(), section: none() },
  ]
}
</script>

<template>
  <fieldset class="mt-2 grid gap-2">
    <legend class="sr-only">Conversion</legend>
    <LimitRow
      v-for="[name, label] in SMALL"
      :key="name"
      v-model="terms[name] as Limit"
      :label="label"
      :path="`conversion.${name}`"
      :unit="small"
    />
    <LimitRow
      v-for="[name, label] in SIZE"
      :key="name"
      v-model="terms[name] as Limit"
      :label="label"
      :path="`conversion.${name}`"
      :unit="size"
    />
    <LimitRow
      v-for="name in WINDOW"
      :key="`insert.${name}`"
      v-model="terms.insert_press![name] as Limit"
      :label="`deck insert’s press, ${name}`"
      :path="`conversion.insert_press.${name}`"
      :unit="small"
    />
    <div class="grid gap-3 sm:grid-cols-3">
      <TextField
        v-for="[name, label] in NUMBERS"
        :key="name"
        :model-value="terms[name] ?? ''"
        :label="label"
        :path="`conversion.${name}`"
        @update:model-value="terms[name] = number($event)"
      />
    </div>
    <h3 class="mt-1 font-bold">Seals, in the order in which they go on</h3>
    <RowList
      v-slot="{ item, index }"
      :items="seals"
      columns="grid-cols-2 sm:grid-cols-4 lg:grid-cols-[1.4fr_1.2fr_repeat(4,1fr)_1.2fr_0.8fr_1.2fr_auto]"
      add-label="Add a seal"
      @add="addSeal"
      @remove="(index) => (terms.seals = seals.filter((_, at) => at !== index))"
    >
      <TextField
        v-model="item.name"
        label="Ring"
        :path="`conversion.seals.${index}.name`"
        :hide-label="index > 0"
      />
      <ChoiceField
        v-model="item.groove_in as string"
        label="Where"
        :choices="GROOVES"
        :path="`conversion.seals.${index}.groove_in`"
      />
      <TextField
        v-for="[name, label] in LENGTHS"
        :key="name"
        v-model="item[name]!.typed"
        :label="`${label} [${size}]`"
        :path="`conversion.seals.${index}.${name}`"
        :hide-label="index > 0"
      />
      <TextField
        v-model="item.material as string"
        label="material"
        :path="`conversion.seals.${index}.material`"
        :hide-label="index > 0"
      />
      <TextField
        :model-value="item.warmest_c ?? ''"
        label="bears [°C]"
        :path="`conversion.seals.${index}.warmest_c`"
        :hide-label="index > 0"
        @update:model-value="item.warmest_c = number($event)"
      />
      <TextField
        v-model="item.grease as string"
        label="grease"
        :path="`conversion.seals.${index}.grease`"
        :hide-label="index > 0"
      />
    </RowList>
  </fieldset>
</template>
