<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import { ask } from '@/api/ask'
import { type BlockView, correctZero } from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import { personId, unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** The zero of a hole's readings was found moved: one correction for the set, no reading is touched. */
const props = defineProps<{ block: BlockView; setId: string; hole: number }>()
const emit = defineEmits<{ corrected: [] }>()
const draft = useLocalStorage(`vallo-zero-${props.setId}`, { text: '', reason: '' })
const { refusal, send } = useForm()

function correct(): Promise<void> {
  return send(async () => {
    const path = { job_id: props.block.job.job_id, set_id: props.setId }
    await ask(
      correctZero({
        path,
        body: { ...draft.value, bare_unit: bareFor(false, unit.value), person_id: personId.value },
      }),
    )
    draft.value = { text: '', reason: '' }
    emit('corrected')
  })
}
</script>

<template>
  <details class="border-b border-rule py-2 text-sm" :open="draft.text !== ''">
    <summary class="cursor-pointer">Zero of hole {{ hole }} found moved</summary>
    <form class="mt-2 grid grid-cols-2 items-start gap-2" @submit.prevent="correct">
      <TextField
        v-model="draft.text"
        label="Add to every reading"
        path="text"
        hint="with its sign"
        :bare="bareFor(false, unit)"
      />
      <TextField v-model="draft.reason" label="How it was found" path="reason" />
      <RefusalNote class="col-span-2" :refusal="refusal" />
      <button type="submit" class="quiet justify-self-start">Correct the zero</button>
    </form>
  </details>
</template>
