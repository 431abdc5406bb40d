<script setup lang="ts">
import { computed } from 'vue'

import type { Limit } from '@/api/generated'
import TextField from '@/shared/ui/TextField.vue'

import { useCard } from './cardDraft'
import LengthField from './LengthField.vue'
import LimitRow from './LimitRow.vue'
import RowList from './RowList.vue'

/** Shims that can be had, and the cutter with its stop. */
const draft = useCard()
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
const currency = computed(() => draft.value.card.currency || 'price')
</script>

<template>
  <fieldset class="grid gap-2">
    <legend class="text-lg font-bold">Shims</legend>
    <RowList
      v-slot="{ item, index }"
      :items="draft.card.shims"
      columns="max-w-2xl grid-cols-[1fr_1fr_1fr_auto]"
      add-label="Add a shim size"
      @add="draft.card.shims.push({ thickness: { typed: '' }, stock: 0, price: null })"
      @remove="(index) => draft.card.shims.splice(index, 1)"
    >
      <LengthField
        v-model="item.thickness"
        label="Thickness"
        :unit="small"
        :path="`shims.${index}.thickness`"
        :hide-label="index > 0"
      />
      <TextField
        v-model="item.stock"
        label="on the shelf"
        :path="`shims.${index}.stock`"
        :hide-label="index > 0"
        whole
      />
      <TextField
        v-model="item.price as string"
        :label="`each [${currency}]`"
        :path="`shims.${index}.price`"
        :hide-label="index > 0"
      />
    </RowList>
    <TextField v-model="draft.card.currency as string" class="max-w-40" label="Prices in" path="currency" />
  </fieldset>
  <fieldset class="grid gap-3 sm:grid-cols-4">
    <legend class="col-span-full text-lg font-bold">Counterbore cutter</legend>
    <TextField v-model="draft.card.cutter.name" label="Cutter" path="cutter.name" />
    <LengthField
      v-model="draft.card.cutter.graduation"
      label="One graduation"
      :unit="small"
      path="cutter.graduation"
    />
    <LengthField
      v-model="draft.card.cutter.stop_accuracy"
      label="Stop is good to ±"
      :unit="small"
      path="cutter.stop_accuracy"
    />
    <TextField
      v-model="draft.card.cutter.graduation_error_percent as number"
      label="Graduation error ± [%]"
      path="cutter.graduation_error_percent"
      :usual="5"
    />
    <LimitRow
      v-model="draft.card.cutter.bit_corner as Limit"
      class="col-span-full"
      label="corner that the bit leaves"
      path="cutter.bit_corner"
      :unit="small"
    />
  </fieldset>
</template>
