<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { checkZero, type Quantity } from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import { personId, unit } from '@/shared/state/preferences'

import RefusalNote from './RefusalNote.vue'
import TextField from './TextField.vue'
import { useForm } from './useForm'

/** The zero looked at again on what it was set on: noted whether it stands or not. */
const props = defineProps<{ quantity: Quantity; jobId: string }>()
const emit = defineEmits<{ looked: [] }>()
const shown = ref('')
const said = ref('')
const form = ref<HTMLFormElement | null>(null)
defineExpose({ focus: () => form.value?.querySelector('input')?.focus() })
const { refusal, busy, send } = useForm()

function look(): Promise<void> {
  return send(async () => {
    const body = {
      quantity: props.quantity,
      text: shown.value,
      bare_unit: bareFor(false, unit.value),
      person_id: personId.value,
    }
    const answer = await ask(checkZero({ path: { job_id: props.jobId }, body }))
    said.value = answer.holds ? 'The zero stands.' : ''
    shown.value = ''
    emit('looked')
  })
}
</script>

<template>
  <section aria-label="Zero">
    <form ref="form" class="flex flex-wrap items-end gap-3" @submit.prevent="look">
      <div class="w-56">
        <TextField
          v-model="shown"
          label="Zero looked at again: it shows"
          path="text"
          :bare="bareFor(false, unit)"
        />
      </div>
      <button type="submit" class="quiet min-h-11" :disabled="shown.trim() === '' || busy">
        Note the look
      </button>
      <span v-if="said" role="status" class="pb-2 text-in">{{ said }}</span>
    </form>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
