<script setup lang="ts">
import { ref, watch } from 'vue'

import type { Refusal } from '@/api/ask'
import { useJob } from '@/shared/state/job'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

/** What it was, kept for whoever meets it again: with the pattern as it stood, and what was tried in vain. */
const props = defineProps<{ symptom: string; cause: string; busy: boolean; refusal: Refusal | null }>()
const job = useJob()
const emit = defineEmits<{ keep: [symptom: string, cause: string, words: string] }>()
const draft = ref({ symptom: props.symptom, cause: props.cause, words: '' })
watch(
  () => [props.symptom, props.cause],
  () => (draft.value = { ...draft.value, symptom: props.symptom, cause: props.cause }),
)
</script>

<template>
  <form
    class="grid gap-3 rounded border-2 border-in px-4 py-3"
    aria-label="Keep it as a case"
    @submit.prevent="emit('keep', draft.symptom, draft.cause, draft.words)"
  >
    <p class="font-bold text-in">Settled? Keep it for whoever meets it again.</p>
    <p class="text-sm">
      And read anew what was read wrong:
      <RouterLink class="link" :to="{ name: 'measure', params: { job: job.jobId } }">measuring</RouterLink>.
      Until then the block goes on saying that it does not add up.
    </p>
    <TextField v-model="draft.symptom" label="How it showed" path="symptom" />
    <TextField v-model="draft.cause" label="What it was" path="cause" />
    <TextField v-model="draft.words" label="What to know next time" path="words" />
    <button type="submit" class="act justify-self-start" :disabled="busy">Keep it as a case</button>
    <RefusalNote v-if="refusal && !refusal.problems.length" :refusal="refusal" />
  </form>
</template>
