<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type OrderKind, placeOrder } from '@/api/generated'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** An order: a part, one made to size, work done elsewhere, or a loan with the day it goes back. */
const props = defineProps<{ what: string; count: number }>()
const emit = defineEmits<{ placed: [] }>()
const job = useJob()
const KINDS: readonly { value: OrderKind; label: string }[] = [
  { value: 'part', label: 'a part' },
  { value: 'made to size', label: 'made to size' },
  { value: 'outside work', label: 'work done elsewhere' },
  { value: 'loan', label: 'a loan, with the day it goes back' },
]
const empty = () => ({
  kind: 'part',
  what: '',
  count: '1',
  whom: '',
  words: '',
  price: '',
  due: '',
  wanted: '',
  within: '',
})
const draft = ref({ ...empty(), what: props.what, count: String(props.count) })
const { refusal, busy, send, answer } = useForm()
const save = (confirmed = false) =>
  send(async () => {
    const { kind, what, count, whom, words, price, due, wanted, within } = draft.value
    const body = {
      order_id: newId(),
      kind: kind as OrderKind,
      what,
      count: Number(count) || 1,
      whom,
      words,
      key: kind === 'loan' ? '' : `part: ${what.toLowerCase()}`,
      price: price.trim().replace(',', '.') || null,
      due: due || null,
      wanted,
      within,
      confirmed,
      person_id: personId.value,
    }
    await ask(placeOrder({ path: { job_id: job.jobId }, body }))
    draft.value = empty()
    emit('placed')
  })
</script>

<template>
  <form class="grid gap-3 sm:grid-cols-3" aria-labelledby="new-order" @submit.prevent="save()">
    <h2 id="new-order" class="text-lg sm:col-span-3">Write an order down</h2>
    <ChoiceField v-model="draft.kind" label="For" :choices="KINDS" path="kind" />
    <TextField v-model="draft.what" label="What" path="what" />
    <TextField v-model="draft.count" label="How many" path="count" />
    <TextField v-model="draft.whom" label="From or to whom" path="whom" />
    <DateField v-model="draft.due" :label="draft.kind === 'loan' ? 'Goes back on' : 'Due on'" path="due" />
    <TextField v-model="draft.price" label="Price" path="price" />
    <template v-if="draft.kind !== 'loan'">
      <TextField v-model="draft.wanted" label="Size ordered (bare: mm)" path="wanted" bare="mm" />
      <TextField v-model="draft.within" label="May be off by" path="within" bare="mm" />
    </template>
    <TextField
      v-model="draft.words"
      :label="draft.kind === 'loan' ? 'In what condition' : 'Instructions'"
      path="words"
    />
    <button type="submit" class="act justify-self-start" :disabled="busy || !draft.what">
      Write it down
    </button>
    <RefusalChoices
      v-if="refusal"
      class="sm:col-span-3"
      :refusal="refusal"
      @answer="
        (one) =>
          answer(
            one,
            (path, text) => Object.assign(draft, { [path]: text }),
            (sure) => save(sure),
          )
      "
    />
  </form>
</template>
