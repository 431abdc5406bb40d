<script setup lang="ts">
import TextField from '@/shared/ui/TextField.vue'

import { useCard } from './cardDraft'

/** What block, liner and piston are made of. */
const draft = useCard()
</script>

<template>
  <fieldset class="form-rows">
    <legend class="sr-only">Materials</legend>
    <TextField v-model="draft.card.block_material" label="Block material" path="block_material" />
    <TextField v-model="draft.card.liner_material" label="Liner material" path="liner_material" />
    <TextField
      v-model="draft.card.piston_material as string"
      label="Piston material"
      path="piston_material"
      usual="aluminium"
    />
  </fieldset>
</template>
