<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import { ask } from '@/api/ask'
import { addLiner } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A liner with the mark painted on it; make and batch show common faults. */
const job = useJob()
const EMPTY = { mark: '', make: '', batch: '' }
const draft = useLocalStorage(`vallo-liner-${job.jobId}`, { ...EMPTY })
const { refusal, send } = useForm()

function add(): Promise<void> {
  return send(async () => {
    await ask(addLiner({ path: { job_id: job.jobId }, body: draft.value }))
    // Make and batch stay: liners come in sets.
    draft.value = { ...draft.value, mark: '' }
    await job.reload()
  })
}
</script>

<template>
  <form class="grid max-w-3xl content-start gap-2" aria-label="Add a liner" @submit.prevent="add">
    <h2 class="text-lg">Add a liner</h2>
    <RefusalNote :refusal="refusal" />
    <div class="grid grid-cols-[6rem_1fr_1fr_auto] items-start gap-3">
      <TextField v-model="draft.mark" label="Mark on it" path="mark" />
      <TextField v-model="draft.make" label="Make" path="make" />
      <TextField v-model="draft.batch" label="Batch" path="batch" />
      <button type="submit" class="act mt-5">Add</button>
    </div>
  </form>
</template>
