<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type Bill, noteWorked, type Operation, type OperationTimeView } from '@/api/generated'
import { dayText } from '@/shared/format/time'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

/** Work that no clock ran for: when, for how long, and whether it stands on the bill. */
const props = defineProps<{ operations: readonly OperationTimeView[] }>()
const emit = defineEmits<{ added: [] }>()
const job = useJob()
const BILLS: readonly { value: Bill; label: string }[] = [
  { value: 'within what was agreed', label: 'within what was agreed' },
  { value: 'chargeable beside it', label: 'chargeable beside it' },
  { value: 'goodwill', label: 'goodwill, on no bill' },
]
const choices = computed(() => props.operations.map((one) => ({ value: one.operation, label: one.title })))
const draft = ref<{ operation: string; day: string; at: string; hours: string; bill: string }>({
  operation: '',
  day: dayText(),
  at: '08:00',
  hours: '',
  bill: 'within what was agreed',
})
const operation = computed(() => draft.value.operation || (choices.value[0]?.value ?? ''))
const form = useForm()
const save = () =>
  form.send(async () => {
    const started = new Date(`${draft.value.day}T${draft.value.at}`).toISOString()
    await ask(
      noteWorked({
        path: { job_id: job.jobId },
        body: {
          operation: operation.value as Operation,
          started,
          hours: Number(draft.value.hours.replace(',', '.')),
          bill: draft.value.bill as Bill,
          person_id: personId.value,
        },
      }),
    )
    draft.value.hours = ''
    emit('added')
  })
</script>

<template>
  <form class="grid grid-cols-2 gap-3" aria-labelledby="add-work" @submit.prevent="save">
    <h2 id="add-work" class="col-span-2 text-lg">Work that no clock ran for</h2>
    <ChoiceField
      :model-value="operation"
      label="At what"
      :choices="choices"
      path="operation"
      @update:model-value="(one) => (draft.operation = one)"
    />
    <ChoiceField v-model="draft.bill" label="On the bill" :choices="BILLS" path="bill" />
    <DateField v-model="draft.day" label="Day" path="started" />
    <div>
      <label class="block text-sm text-ink-soft" for="work-at">From</label>
      <input id="work-at" v-model="draft.at" type="time" class="field" />
    </div>
    <TextField v-model="draft.hours" label="Hours" path="hours" />
    <button type="submit" class="act self-end" :disabled="form.busy.value || !draft.hours">Add it</button>
    <RefusalNote :refusal="elsewhere(form.refusal.value, ['operation', 'bill', 'started', 'hours'])" />
  </form>
</template>
