<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import type { HoleOnLadder } from '@/api/generated'
import { SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { CleanUpNow } from './useCleanUp'

/** What is seen after the cut: light round the wall, bright all round or a dark patch left. */
const props = defineProps<{ now: CleanUpNow; hole: HoleOnLadder; jobId: string }>()
const draft = useLocalStorage(`vallo-bore-look-${props.jobId}-${props.hole.hole}`, {
  hour: '',
  depth: '',
  words: '',
})
const { refusal, busy, send, answer } = useForm()
const bare = computed(() => (unit.value === 'µm' ? 'mm' : 'thou'))
const put = (path: string, text: string) => {
  if (path === 'from_depth') draft.value.depth = text
}
function look(outcome: 'bright all round' | 'a dark patch is left', confirmed = false): Promise<void> {
  return send(async () => {
    const hour = Number(draft.value.hour.replace(/h$/i, ''))
    await props.now.look({
      hole: props.hole.hole,
      outcome,
      words: draft.value.words,
      hour: draft.value.hour.trim() && Number.isFinite(hour) ? hour : null,
      from_depth: draft.value.depth,
      bare_unit: bare.value,
      confirmed,
    })
    draft.value = { hour: '', depth: '', words: '' }
  })
}
</script>

<template>
  <form
    class="grid gap-2"
    :aria-label="`Look at bore ${hole.hole} after the cut`"
    @submit.prevent="look('bright all round')"
  >
    <p class="text-sm">After the cut, light round the wall:</p>
    <div class="flex flex-wrap gap-2">
      <button type="submit" class="quiet min-h-11 font-bold" :disabled="busy">Bright all round</button>
      <button
        type="button"
        class="quiet min-h-11 font-bold"
        :disabled="busy"
        @click="look('a dark patch is left')"
      >
        A dark patch is left
      </button>
    </div>
    <div class="grid grid-cols-3 gap-2">
      <TextField v-model="draft.hour" label="Patch at" unit="h" path="hour" />
      <TextField v-model="draft.depth" label="deep" :bare="SIZE_WITH[unit]" path="from_depth" />
      <TextField v-model="draft.words" label="in words" path="words" />
    </div>
    <RefusalChoices
      :refusal="refusal"
      @answer="(one) => answer(one, put, () => look('a dark patch is left', true))"
    />
  </form>
</template>
