<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type DoubtView, settleDoubt } from '@/api/generated'
import { smallText } from '@/shared/format/lengths'
import { personId, unit } from '@/shared/state/preferences'

import RefusalNote from './RefusalNote.vue'
import { useForm } from './useForm'

/** A moved zero makes readings doubtful; one action corrects or strikes them all. */
const props = defineProps<{ doubts: readonly DoubtView[]; jobId: string }>()
const emit = defineEmits<{ settled: [] }>()
const said = ref('')
const atOnce = ref(false)
const { refusal, busy, send } = useForm()

function settle(zeroCheckId: string, how: 'correct' | 'strike'): Promise<void> {
  return send(async () => {
    const drift = atOnce.value ? ('before all of them' as const) : ('somewhere between' as const)
    const path = { job_id: props.jobId, zero_check_id: zeroCheckId }
    const answer = await ask(settleDoubt({ path, body: { how, drift, person_id: personId.value } }))
    said.value = `${answer.readings} readings ${how === 'correct' ? 'corrected' : 'struck'}.`
    emit('settled')
  })
}
</script>

<template>
  <div>
    <div
      v-for="doubt in doubts"
      :key="doubt.zero_check_id"
      class="border-l-4 border-unsure py-1 pl-3"
      role="alert"
    >
      <p class="text-lg">
        The zero moved by <b class="num">{{ smallText(doubt.moved_m, null, unit) }}</b>: {{ doubt.readings }}
        {{ doubt.readings === 1 ? 'reading is' : 'readings are' }} doubtful.
      </p>
      <label class="block"
        ><input v-model="atOnce" type="checkbox" /> it moved before all of them, such as by a knock</label
      >
      <p class="text-sm text-ink-soft">
        {{
          atOnce
            ? 'All of it is taken off.'
            : 'When it moved is not known: half of it is taken off, and the ± grows by what is left.'
        }}
      </p>
      <div class="flex flex-wrap gap-3 pt-1">
        <button type="button" class="act" :disabled="busy" @click="settle(doubt.zero_check_id, 'correct')">
          Correct them
        </button>
        <button
          type="button"
          class="quiet min-h-11"
          :disabled="busy"
          @click="settle(doubt.zero_check_id, 'strike')"
        >
          Strike them, I read again
        </button>
      </div>
    </div>
    <p v-if="said" role="status" class="text-in">{{ said }}</p>
    <RefusalNote :refusal="refusal" />
  </div>
</template>
