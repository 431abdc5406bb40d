<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { addCheck, type CheckAt, type KnownView } from '@/api/generated'
import { amountAt } from '@/shared/format/amounts'
import { personId, unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A check of the shop's own: what is typed, which cause it finds, how surely it reads, how long it takes. */
const props = defineProps<{ causes: readonly string[] }>()
const emit = defineEmits<{ saved: [known: KnownView] }>()
const { refusal, busy, send } = useForm()
const PLACES: readonly CheckAt[] = ['a hole', 'the block', 'a liner of that make on the bench']
const places = PLACES.map((value) => ({ value, label: value }))
const EMPTY = { name: '', tools: '', minutes: '', asks: '', at: 'a hole', finds: '', standard: '' }
const draft = ref({ ...EMPTY })
const save = () =>
  send(async () => {
    const { minutes, at, finds, ...typed } = draft.value
    const body = {
      ...typed,
      at: at as CheckAt,
      finds: finds ? [finds] : [],
      minutes: amountAt('minutes', minutes) ?? 10,
      bare_unit: unit.value,
      person_id: personId.value,
    }
    emit('saved', await ask(addCheck({ body })))
    draft.value = { ...EMPTY }
  })
const choices = () => [
  { value: '', label: 'choose a cause' },
  ...props.causes.map((value) => ({ value, label: value })),
]
</script>

<template>
  <form class="grid content-start gap-3" aria-label="A check of our own" @submit.prevent="save">
    <h2 class="text-lg font-bold">A check of our own</h2>
    <TextField v-model="draft.name" label="What is done" path="name" />
    <ChoiceField v-model="draft.finds" label="Which cause it finds" :choices="choices()" path="finds" />
    <ChoiceField v-model="draft.at" label="Where" :choices="places" path="at" />
    <TextField v-model="draft.asks" label="Which number is typed, and which way it counts" path="asks" />
    <div class="grid grid-cols-2 gap-3">
      <TextField v-model="draft.standard" label="How surely it reads" path="standard" :bare="unit" />
      <TextField v-model="draft.minutes" label="Minutes" path="minutes" hint="left empty: 10" />
    </div>
    <TextField v-model="draft.tools" label="Tools" path="tools" />
    <button type="submit" class="act justify-self-start" :disabled="busy">Save the check</button>
    <RefusalNote v-if="refusal && !refusal.problems.length" :refusal="refusal" />
  </form>
</template>
