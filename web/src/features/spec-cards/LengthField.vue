<script setup lang="ts">
import { computed } from 'vue'

import type { Length, ReadingBody } from '@/api/generated'
import TextField from '@/shared/ui/TextField.vue'

import { useIsAsked } from './cardDraft'

/** A length of the card, kept as typed. */
const props = defineProps<{
  label: string
  path: string
  hideLabel?: boolean
  hint?: string
  unit?: ReadingBody['bare_unit']
  always?: boolean
}>()
const model = defineModel<Length>({ required: true })
const isAsked = useIsAsked(
  () => props.path,
  () => props.always,
)
const typed = computed({
  get: () => model.value.typed,
  set: (text) => (model.value = { typed: text }),
})
</script>

<template>
  <TextField
    v-if="!isAsked"
    v-model="typed"
    :label="props.label"
    :path="path"
    :hide-label="hideLabel"
    :hint="hint"
    :unit="unit"
    :bare="unit"
  />
</template>
