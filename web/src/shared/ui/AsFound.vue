<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { fitLinersAsFound } from '@/api/generated'
import { ownChange, refresh } from '@/shared/state/link'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import { useJobUndo } from '@/shared/state/useUndo'

import RefusalNote from './RefusalNote.vue'
import { useForm } from './useForm'

/** An engine comes in with its liners in it: one step writes them all down, each marked with its hole. */
const job = useJob()
const undo = useJobUndo()
const { refusal, busy, send } = useForm()
const holes = computed(() =>
  (job.block.value?.holes ?? []).filter((one) => one.as_found).map((one) => one.number),
)
const words = computed(() => {
  const [first, ...rest] = holes.value
  const last = rest.at(-1)
  return last === undefined ? `${first} in its hole` : `${first} to ${last} in their holes`
})

function fit(): Promise<void> {
  return send(async () => {
    await ownChange(job.jobId, () =>
      ask(fitLinersAsFound({ path: { job_id: job.jobId }, body: { person_id: personId.value } })),
    )
    undo.did()
    await refresh(job.jobId)
  })
}
</script>

<template>
  <div v-if="holes.length > 0" class="py-2">
    <button type="button" class="act" :disabled="busy" @click="fit">Liners as found, {{ words }}</button>
    <p class="text-sm text-ink-soft">
      One liner for each hole of which nothing is known yet, marked with the number of its hole. Their make
      and what they measure is written down when it is known.
    </p>
    <RefusalNote :refusal="refusal" />
  </div>
</template>
