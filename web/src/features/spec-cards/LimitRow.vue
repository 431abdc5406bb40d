<script setup lang="ts">
import { computed } from 'vue'

import type { Limit, ReadingBody } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import { STATUSES, useIsAsked } from './cardDraft'

/** One limit with where it comes from; empty means the card sets none. */
const props = defineProps<{ label: string; path: string; unit: ReadingBody['bare_unit']; always?: boolean }>()
const model = defineModel<Limit>({ required: true })
const isAsked = useIsAsked(
  () => props.path,
  () => props.always,
)

const typed = computed({
  get: () => model.value.length?.typed ?? '',
  set: (text) => (model.value = { ...model.value, length: text.trim() === '' ? null : { typed: text } }),
})
const source = computed({
  get: () => model.value.source ?? '',
  set: (text) => (model.value = { ...model.value, source: text }),
})
const status = computed({
  get: () => model.value.status ?? 'unverified',
  set: (value) => (model.value = { ...model.value, status: value }),
})
</script>

<template>
  <div
    v-if="!isAsked"
    class="grid items-start gap-x-3 gap-y-1 border-b border-rule py-1 sm:grid-cols-[11rem_8rem_1fr_10rem]"
  >
    <span class="pt-2 text-sm"
      >{{ label }} <span class="text-ink-soft">[{{ unit }}]</span></span
    >
    <TextField v-model="typed" :label="label" :path="path" :bare="unit" hide-label wide-note />
    <TextField v-model="source" :label="`${label}: source`" :path="`${props.path}.source`" hide-label />
    <ChoiceField
      v-model="status"
      :label="`${label}: status`"
      :choices="STATUSES"
      :path="`${props.path}.status`"
      hide-label
    />
  </div>
</template>
