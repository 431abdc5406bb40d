<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Bill, MoneyView } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

import type { MoneyNow } from './useMoney'
import { money } from './words'

/** What parts really cost: of a line that was agreed, or beside it. */
const props = defineProps<{ view: MoneyView; now: MoneyNow }>()
const draft = ref<{ key: string; words: string; amount: string; bill: Bill }>({
  key: '',
  words: '',
  amount: '',
  bill: 'within what was agreed',
})
const keys = computed(() => {
  const agreed = (props.view.standing?.lines ?? []).filter((one) => one.sheet === 'parts')
  const found = (props.view.standing?.found ?? []).filter((one) => one.sheet === 'parts')
  const rows = [...agreed, ...found].map((one) => ({ value: one.key, label: one.words }))
  return [...rows, { value: '', label: 'something else' }]
})
const key = computed(() =>
  keys.value.some((one) => one.value === draft.value.key) ? draft.value.key : (keys.value[0]?.value ?? ''),
)
const words = computed(() =>
  key.value ? (keys.value.find((one) => one.value === key.value)?.label ?? '') : draft.value.words,
)
const BILLS = ['within what was agreed', 'chargeable beside it', 'goodwill'].map((one) => ({
  value: one,
  label: one,
}))
const form = useForm()
const save = () =>
  form.send(async () => {
    const done = await props.now.pay(key.value, words.value, draft.value.amount, draft.value.bill)
    if (done) draft.value = { key: '', words: '', amount: '', bill: 'within what was agreed' }
    else form.refusal.value = props.now.refusal.value
  })
</script>

<template>
  <form class="grid content-start gap-3 sm:grid-cols-2" aria-labelledby="paid" @submit.prevent="save">
    <h2 id="paid" class="text-lg sm:col-span-2">What a part cost</h2>
    <ul v-if="view.costs.length" class="text-sm sm:col-span-2">
      <li v-for="one in view.costs" :key="one.part_cost_id" class="flex gap-3 border-b border-rule py-1">
        <span class="flex-1"
          >{{ one.words
          }}<template v-if="one.bill !== 'within what was agreed'">, {{ one.bill }}</template></span
        >
        <b class="num">{{ money(one.money) }}</b><span class="text-ink-soft">{{ one.paid_by }}</span>
      </li>
    </ul>
    <ChoiceField
      :model-value="key"
      label="Which line"
      :choices="keys"
      path="key"
      @update:model-value="(one) => (draft.key = one)"
    />
    <TextField v-if="!key" v-model="draft.words" label="What" path="words" />
    <TextField v-model="draft.amount" :label="`Paid, ${view.currency}`" path="money" />
    <ChoiceField v-model="draft.bill" label="On the bill" :choices="BILLS" path="bill" />
    <button
      type="submit"
      class="act justify-self-start"
      :disabled="form.busy.value || !draft.amount || !words"
    >
      Write it down
    </button>
    <RefusalNote
      class="sm:col-span-2"
      :refusal="elsewhere(form.refusal.value, ['key', 'words', 'money', 'bill'])"
    />
  </form>
</template>
