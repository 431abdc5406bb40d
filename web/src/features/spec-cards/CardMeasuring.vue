<script setup lang="ts">
import { computed } from 'vue'

import ChoiceField from '@/shared/ui/ChoiceField.vue'
import { newtonMetres, torqueText } from '@/shared/format/others'
import TextField from '@/shared/ui/TextField.vue'

import { useCard } from './cardDraft'
import LengthField from './LengthField.vue'
import RowList from './RowList.vue'

/** How protrusion is measured for this card, and how readings are decided. */
const draft = useCard()
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
const landChoices = computed(() =>
  draft.value.card.lands.map((land) => ({ value: land.name, label: land.name })),
)
const torque = computed({
  get: () => draft.value.card.measuring.hold_down_torque_nm ?? '',
  set: (text) => {
    const typed = String(text).trim()
    draft.value.card.measuring.hold_down_torque_nm = (typed === '' ? null : typed) as number | null
  },
})
const torqueHint = computed(() => {
  const value = newtonMetres(torque.value)
  return typeof value === 'number' && value > 0 ? torqueText(value) : 'or 52 lbf·ft'
})
const ACCEPTANCES = [
  { value: 'guarded', label: 'proved beyond the uncertainty' },
  { value: 'simple', label: 'simple: the reading alone' },
]
const acceptance = computed({
  get: () => draft.value.card.acceptance ?? 'guarded',
  set: (value) => (draft.value.card.acceptance = value),
})
</script>

<template>
  <fieldset class="grid gap-3 sm:grid-cols-3">
    <legend class="col-span-full text-lg font-bold">Measuring</legend>
    <ChoiceField
      v-model="draft.card.measuring.land"
      label="Protrusion is read on"
      :choices="landChoices"
      path="measuring.land"
    />
    <TextField v-model="draft.card.measuring.datum" label="from" path="measuring.datum" />
    <TextField
      v-model="draft.hours"
      label="at clock positions"
      path="measuring.required_hours"
      list
      usual="12, 3, 6, 9"
    />
    <TextField
      v-model="draft.card.measuring.hold_down"
      label="Hold-down"
      path="measuring.hold_down"
      hint="empty: not held down"
    />
    <TextField
      v-model="torque"
      label="Torque"
      unit="N·m"
      path="measuring.hold_down_torque_nm"
      :hint="torqueHint"
    />
    <ChoiceField v-model="acceptance" label="A hole is in when" :choices="ACCEPTANCES" path="acceptance" />
    <TextField
      v-model="draft.card.coverage_factor as number"
      label="Coverage factor k"
      path="coverage_factor"
      hint="2: about 95 %"
      :usual="2"
    />
  </fieldset>
  <fieldset class="grid gap-2">
    <legend class="text-lg font-bold">Lands of the flange</legend>
    <RowList
      v-slot="{ item, index }"
      :items="draft.card.lands"
      columns="grid-cols-[1fr_8rem_8rem_2fr_auto]"
      add-label="Add a land"
      @add="draft.card.lands.push({ name: '', raised: { typed: '0' }, note: '', width: { typed: '0' } })"
      @remove="(index) => draft.card.lands.splice(index, 1)"
    >
      <TextField v-model="item.name" label="Land" :path="`lands.${index}.name`" :hide-label="index > 0" />
      <LengthField
        v-model="item.raised"
        label="stands above"
        :unit="small"
        :path="`lands.${index}.raised`"
        :hide-label="index > 0"
      />
      <LengthField
        :model-value="item.width ?? { typed: '0' }"
        label="width, 0: not known"
        :unit="draft.card.unit"
        :path="`lands.${index}.width`"
        :hide-label="index > 0"
        @update:model-value="item.width = $event"
      />
      <TextField
        v-model="item.note as string"
        label="where it is"
        :path="`lands.${index}.note`"
        :hide-label="index > 0"
      />
    </RowList>
  </fieldset>
  <fieldset class="grid gap-2">
    <legend class="text-lg font-bold">What lies between deck and measuring face</legend>
    <p class="text-sm text-ink-soft">A spacer plate or gasket, each once. Nothing between: leave it empty.</p>
    <RowList
      v-slot="{ item, index }"
      :items="draft.card.measuring.between"
      columns="grid-cols-[1fr_8rem_auto]"
      add-label="Add a part"
      @add="draft.card.measuring.between.push({ name: '', thickness: { typed: '' } })"
      @remove="(index) => draft.card.measuring.between.splice(index, 1)"
    >
      <TextField
        v-model="item.name"
        label="Part"
        :path="`measuring.between.${index}.name`"
        :hide-label="index > 0"
      />
      <LengthField
        v-model="item.thickness"
        label="thickness"
        :unit="small"
        :path="`measuring.between.${index}.thickness`"
        :hide-label="index > 0"
      />
    </RowList>
  </fieldset>
</template>
