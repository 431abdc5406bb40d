<script setup lang="ts">
import { ref } from 'vue'

import type { WrittenView } from '@/api/generated'
import { dayText } from '@/shared/format/time'
import DateField from '@/shared/ui/DateField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

import type { MoneyNow } from './useMoney'
import { money } from './words'

/** An estimate that was written and waits for the owner's word: by whom, by what way, on which day. */
const props = defineProps<{ one: WrittenView; customer: string; now: MoneyNow; job: string }>()
const draft = ref({ said: props.customer, way: 'by phone', on: dayText(), words: '' })
const form = useForm()
const say = (answer: 'agreed' | 'refused') =>
  form.send(async () => {
    const done = await props.now.answer(props.one.estimate_id, { answer, ...draft.value })
    if (!done) form.refusal.value = props.now.refusal.value
  })
</script>

<template>
  <form
    class="grid gap-3 border-2 border-act bg-act-wash px-4 py-3"
    aria-labelledby="answer"
    @submit.prevent="say('agreed')"
  >
    <h2 id="answer" class="text-lg">
      Written, not answered: {{ money(one.totals.net.low) }} to {{ money(one.totals.net.worst) }}
      {{ one.currency }}, with tax {{ money(one.totals.gross.worst) }}
      <a class="link ml-3 text-base font-normal" :href="`/api/jobs/${job}/estimates/${one.estimate_id}.pdf`"
        >PDF to send</a
      >
    </h2>
    <div class="grid gap-3 sm:grid-cols-4">
      <TextField v-model="draft.said" label="Who says so" path="said" />
      <TextField v-model="draft.way" label="By what way" path="way" />
      <DateField v-model="draft.on" label="On" path="on" />
      <TextField v-model="draft.words" label="In what words" path="words" />
    </div>
    <div class="flex flex-wrap gap-3">
      <button type="submit" class="act" :disabled="form.busy.value">Agreed</button>
      <button type="button" class="quiet" :disabled="form.busy.value" @click="say('refused')">Refused</button>
    </div>
    <RefusalNote :refusal="elsewhere(form.refusal.value, ['said', 'way', 'on', 'words'])" />
  </form>
</template>
