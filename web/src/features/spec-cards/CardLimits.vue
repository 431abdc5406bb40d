<script setup lang="ts">
import { computed } from 'vue'

import type { Limit, Limits, Seat } from '@/api/generated'

import { useCard } from './cardDraft'
import LimitRow from './LimitRow.vue'

/** Limits, each with its source and how far it may be trusted. */
const draft = useCard()
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
const size = computed(() => draft.value.card.unit)

const LIMITS: [keyof Limits, string][] = [
  ['least_without_shim', 'least, no shim'],
  ['greatest_without_shim', 'greatest, no shim'],
  ['least_with_shim', 'least on a shim'],
  ['greatest_with_shim', 'greatest on a shim'],
  ['target_with_shim', 'aim on a shim'],
  ['variation_round', 'variation round'],
  ['neighbour_difference', 'neighbours, one head'],
  ['head_average_least', 'head average, least'],
  ['head_average_greatest', 'head average, greatest'],
]
const SEAT: [keyof Seat, string, 'small' | 'size'][] = [
  ['flange_nominal', 'flange', 'size'],
  ['counterbore_nominal', 'counterbore depth', 'size'],
  ['ledge_at_nominal', 'ledge at that depth', 'size'],
  ['ledge_least', 'least ledge left', 'size'],
  ['cleanup_least', 'least clean-up cut', 'small'],
  ['sealing_land', 'sealing land, wide', 'size'],
  ['flange_edge', "flange's edge, broken", 'small'],
]
</script>

<template>
  <fieldset>
    <legend class="text-lg font-bold">Protrusion</legend>
    <div class="grid grid-cols-[11rem_8rem_1fr_10rem] gap-x-3 border-b border-ink-soft text-sm text-ink-soft">
      <span>limit</span><span>as the book says it</span><span>book, edition, page</span><span>status</span>
    </div>
    <LimitRow
      v-for="[key, label] in LIMITS"
      :key="key"
      v-model="draft.card.limits[key]"
      :label="label"
      :path="`limits.${key}`"
      :unit="small"
    />
  </fieldset>
  <fieldset>
    <legend class="text-lg font-bold">Flange and counterbore</legend>
    <LimitRow
      v-for="[key, label, kind] in SEAT"
      :key="key"
      v-model="draft.card.seat[key] as Limit"
      :label="label"
      :path="`seat.${key}`"
      :unit="kind === 'size' ? size : small"
    />
  </fieldset>
</template>
