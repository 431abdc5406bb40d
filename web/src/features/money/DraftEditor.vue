<script setup lang="ts">
import { computed, ref } from 'vue'

import type { MoneyView } from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import DraftSheet from './DraftSheet.vue'
import type { MoneyNow } from './useMoney'
import { about, money, number, type TypedLine } from './words'

/** The estimate before it goes to the owner: drafted by the job itself, every line to be changed, taken out or added. */
const props = defineProps<{ view: MoneyView; now: MoneyNow }>()
const emit = defineEmits<{ written: [] }>()
const lines = ref<TypedLine[]>(
  props.view.draft.map((one) => ({
    sheet: one.sheet,
    key: one.key,
    words: one.words,
    low: String(one.low),
    worst: String(one.worst),
    tax: String(number(one.tax_percent)),
  })),
)
const words = ref('')
const sum = computed(() => about(lines.value, props.view.rate ?? 0))
const sources = computed(() => new Map(props.view.draft.map((one) => [one.key, one])))
const add = (sheet: TypedLine['sheet']) =>
  lines.value.push({
    sheet,
    key: '',
    words: '',
    low: '0',
    worst: '0',
    tax: String(number(props.view.rules.tax_percent)),
  })
const remove = (line: TypedLine) => (lines.value = lines.value.filter((one) => one !== line))
async function write(): Promise<void> {
  if (
    await props.now.write(
      lines.value.filter((one) => one.words.trim()),
      words.value,
    )
  )
    emit('written')
}
</script>

<template>
  <form class="mt-2" aria-label="Estimate" @submit.prevent="write">
    <div class="grid grid-cols-[minmax(0,1fr)] gap-3 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <DraftSheet
        title="Parts"
        unit="money"
        :lines="lines.filter((one) => one.sheet === 'parts')"
        :sources="sources"
        @add="add('parts')"
        @remove="remove"
      />
      <DraftSheet
        title="Labour with machining"
        unit="hours"
        :lines="lines.filter((one) => one.sheet !== 'parts')"
        :sources="sources"
        @add="add('labour with machining')"
        @remove="remove"
      />
    </div>
    <div class="mt-3 flex flex-wrap items-end gap-4">
      <TextField v-model="words" class="min-w-64 flex-1" label="A word to the owner" path="words" />
      <p class="text-lg">
        about <b class="num">{{ money(sum.low) }}</b> to
        <b class="num">{{ money(sum.worst) }} {{ view.currency }}</b> before tax
      </p>
      <button type="submit" class="act" :disabled="now.busy.value || view.rate === null">
        Write it down
      </button>
    </div>
    <RefusalNote :refusal="now.refusal.value" />
  </form>
</template>
