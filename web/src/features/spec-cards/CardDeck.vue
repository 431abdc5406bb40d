<script setup lang="ts">
import { computed } from 'vue'

import type { DependentHeight, Limit } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import { useCard } from './cardDraft'
import LengthField from './LengthField.vue'
import LimitRow from './LimitRow.vue'
import RowList from './RowList.vue'

/** What hangs on the deck: heights and volume that a skim changes; and what keeps the cutter's handle from going round. */
const draft = useCard()
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
draft.value.card.heights ??= []
draft.value.card.obstructions ??= []
const heights = computed(() => draft.value.card.heights ?? [])
const obstructions = computed(() => draft.value.card.obstructions ?? [])
const KINDS = (['piston stand-out', 'piston to injector', 'piston to valve'] as const).map((value) => ({
  value,
  label: value,
}))
const typedOf = (limit: Limit | undefined) => limit?.length?.typed ?? ''
const put = (row: DependentHeight, side: 'least' | 'greatest', text: string | number | null) => {
  const typed = String(text ?? '')
  row[side] = { ...row[side], length: typed.trim() === '' ? null : { typed } }
}
const volume = computed({
  get: () => draft.value.card.clearance_volume_cm3 ?? '',
  set: (text) => (draft.value.card.clearance_volume_cm3 = text === '' ? null : text),
})
</script>

<template>
  <fieldset class="grid gap-2">
    <legend class="text-lg font-bold">What hangs on the deck</legend>
    <LimitRow v-model="draft.card.stroke as Limit" label="stroke" path="stroke" :unit="draft.card.unit" />
    <TextField
      v-model="volume"
      class="max-w-60"
      label="Clearance volume of one cylinder"
      unit="cm³"
      path="clearance_volume_cm3"
    />
    <TextField
      v-model="draft.card.deck_kept as string"
      class="max-w-4xl"
      label="The deck must not be cut, because (leave empty where it may be)"
      path="deck_kept"
    />
    <RowList
      v-slot="{ item, index }"
      :items="heights"
      columns="max-w-4xl grid-cols-[1.4fr_1fr_1fr_1fr_auto]"
      add-label="Add a height"
      @add="heights.push({ kind: 'piston stand-out', present: { typed: '' } })"
      @remove="(index) => heights.splice(index, 1)"
    >
      <ChoiceField
        v-model="item.kind"
        label="Height"
        :choices="KINDS"
        :path="`heights.${index}.kind`"
        :hide-label="index > 0"
      />
      <LengthField
        v-model="item.present"
        label="now"
        :unit="small"
        :path="`heights.${index}.present`"
        :hide-label="index > 0"
      />
      <TextField
        v-for="side in ['least', 'greatest'] as const"
        :key="side"
        :model-value="typedOf(item[side])"
        :label="side"
        :bare="small"
        :path="`heights.${index}.${side}`"
        :hide-label="index > 0"
        @update:model-value="put(item, side, $event)"
      />
    </RowList>
  </fieldset>
  <fieldset class="grid gap-2">
    <legend class="text-lg font-bold">In the way of the cutter's handle</legend>
    <RowList
      v-slot="{ item, index }"
      :items="obstructions"
      columns="max-w-4xl grid-cols-[4rem_1fr_5rem_5rem_2fr_auto]"
      add-label="Add what is in the way"
      @add="obstructions.push({ hole: 1, what: '', from_hour: 12, until_hour: 3, remedy: '' })"
      @remove="(index) => obstructions.splice(index, 1)"
    >
      <TextField
        v-model="item.hole"
        label="hole"
        :path="`obstructions.${index}.hole`"
        :hide-label="index > 0"
        whole
      />
      <TextField
        v-model="item.what"
        label="what"
        :path="`obstructions.${index}.what`"
        :hide-label="index > 0"
      />
      <TextField
        v-model="item.from_hour"
        label="from [h]"
        :path="`obstructions.${index}.from_hour`"
        :hide-label="index > 0"
      />
      <TextField
        v-model="item.until_hour"
        label="to [h]"
        :path="`obstructions.${index}.until_hour`"
        :hide-label="index > 0"
      />
      <TextField
        v-model="item.remedy as string"
        label="what helps"
        :path="`obstructions.${index}.remedy`"
        :hide-label="index > 0"
      />
    </RowList>
  </fieldset>
</template>
