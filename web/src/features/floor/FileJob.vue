<script setup lang="ts">
import { ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { fileJob, type FloorStrip } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A job that is done is put away, off the floor; one that is not needs a reason. Nothing of it is lost. */
const props = defineProps<{ strip: FloorStrip }>()
const emit = defineEmits<{ filed: [] }>()
const { refusal, busy, send } = useForm()
const words = ref('')
const isAsked = ref(false)
watch(refusal, (now) => (isAsked.value ||= now?.at('words') !== undefined && now.at('words') !== ''))

function file(): Promise<void> {
  return send(async () => {
    const body = { away: !props.strip.away, words: words.value, person_id: personId.value }
    await ask(fileJob({ path: { job_id: props.strip.job.job_id }, body }))
    isAsked.value = false
    emit('filed')
  })
}
</script>

<template>
  <form class="grid max-w-md gap-2" :aria-label="`Filing of ${strip.job.name}`" @submit.prevent="file">
    <TextField v-if="isAsked" v-model="words" label="Why it is put away" path="words" />
    <RefusalNote v-else :refusal="refusal" />
    <button type="submit" class="link min-h-9 justify-self-start text-sm" :disabled="busy">
      {{ strip.away ? 'Bring it back to the floor' : 'Put it away' }}
    </button>
  </form>
</template>
