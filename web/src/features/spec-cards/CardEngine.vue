<script setup lang="ts">
import { computed } from 'vue'

import type { Construction } from '@/api/generated'
import DeckOutline from '@/shared/charts/DeckOutline.vue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import { layoutOf, NUMBERINGS, useCard } from './cardDraft'
import LengthField from './LengthField.vue'

/** What engine it is, how it is lined, and how its holes stand. */
const draft = useCard()
const CONSTRUCTIONS: Construction[] = [
  'wet liner, top flange',
  'wet liner, bottom seat',
  'dry sleeve, flanged',
  'dry sleeve, plain',
  'parent bore',
  'coated bore',
  'counterbore insert',
]
const choices = CONSTRUCTIONS.map((one) => ({ value: one, label: one }))
const ARRANGEMENTS = [
  { value: 'in-line', label: 'in line' },
  { value: 'V', label: 'in a V' },
]
const bankAngle = computed({
  get: () => draft.value.card.layout.bank_angle_deg ?? '',
  set: (text) => {
    const typed = String(text).trim()
    draft.value.card.layout.bank_angle_deg = (typed === '' ? null : typed) as number | null
  },
})
const bankOffset = computed({
  get: () => draft.value.card.layout.bank_offset ?? { typed: '0' },
  set: (length) => (draft.value.card.layout.bank_offset = length),
})
/** What a card says in words of its own stays a choice. */
const numberings = computed(() =>
  [...new Set([...NUMBERINGS, draft.value.card.layout.numbering])].map((one) => ({ value: one, label: one })),
)
const UNITS = [
  { value: 'mm', label: 'millimetres' },
  { value: 'inch', label: 'inch, small lengths in thou' },
]
</script>

<template>
  <fieldset class="form-rows">
    <legend class="text-lg font-bold">Engine and block</legend>
    <ChoiceField
      v-model="draft.card.construction"
      label="Construction"
      :choices="choices"
      path="construction"
    />
    <TextField v-model="draft.card.name" label="Name of the card" path="name" />
    <TextField v-model="draft.card.engine" label="Engine" path="engine" hint="empty: as the card is named" />
    <ChoiceField v-model="draft.card.unit" label="Lengths on this card are in" :choices="UNITS" path="unit" />
    <ChoiceField
      v-model="draft.card.layout.arrangement"
      label="Holes stand"
      :choices="ARRANGEMENTS"
      path="layout.arrangement"
    />
    <TextField v-model="draft.card.layout.holes" label="Holes" path="layout.holes" whole />
    <TextField
      v-model="draft.heads"
      label="Heads"
      path="layout.heads"
      hint="holes under each, such as 1 2 3 / 4 5 6"
      list
    />
    <ChoiceField
      v-if="draft.card.layout.arrangement === 'in-line'"
      v-model="draft.card.layout.numbering"
      label="Numbering"
      :choices="numberings"
      path="layout.numbering"
    />
    <TextField v-else v-model="draft.card.layout.numbering" label="Numbering" path="layout.numbering" />
    <LengthField
      v-model="draft.card.layout.bore_pitch"
      label="Bore pitch"
      path="layout.bore_pitch"
      :unit="draft.card.unit"
    />
    <LengthField
      v-model="draft.card.layout.bore"
      label="Bore"
      path="layout.bore"
      :unit="draft.card.unit"
      hint="diametral"
    />
    <TextField
      v-model="draft.card.layout.twelve_o_clock"
      label="What lies at 12 h"
      path="layout.twelve_o_clock"
    />
    <template v-if="draft.card.layout.arrangement === 'V'">
      <TextField
        v-model="draft.banks"
        label="Banks"
        path="layout.banks"
        hint="from the front, such as 1 3 5 7 / 2 4 6 8"
        list
      />
      <TextField v-model="bankAngle" label="Bank angle" unit="°" path="layout.bank_angle_deg" />
      <LengthField
        v-model="bankOffset"
        label="Second bank stands back by"
        path="layout.bank_offset"
        :unit="draft.card.unit"
      />
    </template>
    <DeckOutline
      class="border-t border-rule pt-2"
      :layout="layoutOf(draft)"
      :numbering="draft.card.layout.numbering"
      :twelve="draft.card.layout.twelve_o_clock"
      :bank-angle="draft.card.layout.arrangement === 'V' ? Number(bankAngle) || null : null"
    />
  </fieldset>
</template>
