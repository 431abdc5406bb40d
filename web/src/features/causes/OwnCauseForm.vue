<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { addCause, type KnownView, type Pattern } from '@/api/generated'
import { amountAt } from '@/shared/format/amounts'
import { personId, unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A cause of the shop's own: how it shows, where, between which effects, how often it is met. */
const emit = defineEmits<{ saved: [known: KnownView] }>()
const { refusal, busy, send } = useForm()
const PATTERNS: readonly Pattern[] = [
  'every hole alike',
  'every liner of one make',
  'one hole',
  'one hole, high on one side and low on the other',
  'one hole, lifted on one side',
  'along the block',
  'a bow along the block',
]
const choices = PATTERNS.map((value) => ({ value, label: value }))
const EMPTY = { name: '', shows: '', pattern: 'one hole', low: '', high: '', often: '' }
const draft = ref({ ...EMPTY })
const save = () =>
  send(async () => {
    const { often, pattern, ...typed } = draft.value
    const body = {
      ...typed,
      pattern: pattern as Pattern,
      bare_unit: unit.value,
      in_a_hundred: amountAt('in_a_hundred', often) ?? 1,
      person_id: personId.value,
    }
    emit('saved', await ask(addCause({ body })))
    draft.value = { ...EMPTY }
  })
</script>

<template>
  <form class="grid content-start gap-3" aria-label="A cause of our own" @submit.prevent="save">
    <h2 class="text-lg font-bold">A cause of our own</h2>
    <TextField v-model="draft.name" label="Its name" path="name" />
    <TextField v-model="draft.shows" label="How it shows" path="shows" />
    <ChoiceField v-model="draft.pattern" label="Where it shows" :choices="choices" path="pattern" />
    <div class="grid grid-cols-2 gap-3">
      <TextField v-model="draft.low" label="Least effect" path="low" :bare="unit" hint="− stands low" />
      <TextField v-model="draft.high" label="Greatest effect" path="high" :bare="unit" />
    </div>
    <TextField
      v-model="draft.often"
      label="How often, in a hundred blocks"
      path="in_a_hundred"
      hint="left empty: 1"
    />
    <button type="submit" class="act justify-self-start" :disabled="busy">Save the cause</button>
    <RefusalNote v-if="refusal && !refusal.problems.length" :refusal="refusal" />
  </form>
</template>
