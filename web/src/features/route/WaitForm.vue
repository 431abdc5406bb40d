<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Operation, RouteView, WaitCause } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import TextField from '@/shared/ui/TextField.vue'

import type { RouteNow } from './useRoute'

/** What an operation waits for: since when, and when it is expected. */
const props = defineProps<{ now: RouteNow; route: RouteView; at: Operation | null }>()
const CAUSES = (['part', 'tool', 'person', 'machine', 'temperature', 'customer'] as const).map((one) => ({
  value: one,
  label: one,
}))
const cause = ref<WaitCause>('part')
const words = ref('')
const since = ref('')
const expected = ref('')
const chosen = ref('')
const choices = computed(() => {
  const open = props.route.operations.filter((one) => !one.is_done)
  const own = open.map((one) => ({ value: one.operation, label: one.title }))
  return own.some((one) => one.value === 'order')
    ? own
    : [{ value: 'order', label: 'Order parts, wait' }, ...own]
})
const operation = computed({
  get: () => chosen.value || props.at || 'order',
  set: (value: string) => (chosen.value = value),
})
async function note(): Promise<void> {
  const done = await props.now.wait({
    operation: operation.value as Operation,
    cause: cause.value,
    words: words.value,
    since: since.value || null,
    expected: expected.value || null,
  })
  if (done) words.value = since.value = expected.value = ''
}
</script>

<template>
  <details class="mt-2">
    <summary class="min-h-11 cursor-pointer">Write down what is waited for</summary>
    <form class="grid gap-3 sm:grid-cols-2" aria-label="Wait" @submit.prevent="note">
      <ChoiceField v-model="operation" label="Operation" :choices="choices" path="operation" />
      <ChoiceField v-model="cause" label="Waits for a" :choices="CAUSES" path="cause" />
      <TextField v-model="words" class="sm:col-span-2" label="What it is" path="words" />
      <DateField v-model="since" label="Since (empty: now)" path="since" />
      <DateField v-model="expected" label="Expected" path="expected" />
      <button type="submit" class="quiet min-h-11 justify-self-start" :disabled="words.trim() === ''">
        It waits
      </button>
    </form>
  </details>
</template>
