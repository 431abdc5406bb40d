<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { PassKind } from '@/api/generated'
import { SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { BoringNow } from './useBoring'

/** A pass that was made: the dial a side, the diameter as read, minutes. What is typed stays until it is taken. */
const props = defineProps<{ now: BoringNow; jobId: string }>()
const empty = { kind: 'cut', dial: '', diameter: '', minutes: '', words: '' }
const draft = useLocalStorage(`vallo-boring-${props.jobId}-${props.now.hole.value}`, { ...empty })
const reason = ref('')
const { refusal, busy, send, answer } = useForm()
const KINDS = ['trial cut', 'cut', 'spring pass', 'last cut'].map((value) => ({ value, label: value }))
const isSpring = computed(() => draft.value.kind === 'spring pass')
const bare = computed(() => (unit.value === 'µm' ? '0.01 mm' : 'thou'))
const put = (path: string, text: string) => {
  if (path === 'dial') draft.value.dial = text
  if (path === 'diameter') draft.value.diameter = text
}
function make(confirmed = false): Promise<void> {
  return send(async () => {
    await props.now.make({
      kind: draft.value.kind as PassKind,
      dial: isSpring.value ? '0' : draft.value.dial,
      diameter: draft.value.diameter,
      minutes: draft.value.minutes,
      words: draft.value.words,
      bare_unit: bare.value,
      confirmed,
      hold_reason: reason.value,
    })
    draft.value = { ...empty }
    reason.value = ''
  })
}
</script>

<template>
  <form class="grid gap-2" aria-label="A pass that was made" @submit.prevent="make()">
    <div class="grid grid-cols-2 gap-2">
      <ChoiceField v-model="draft.kind" label="Pass" :choices="KINDS" path="kind" />
      <TextField v-if="!isSpring" v-model="draft.dial" label="Dial, a side" :bare="bare" path="dial" />
      <p v-else class="self-end pb-2 text-sm text-ink-soft">at the same setting</p>
      <TextField
        v-model="draft.diameter"
        label="Diameter read after"
        :bare="SIZE_WITH[unit]"
        path="diameter"
      />
      <TextField v-model="draft.minutes" label="Minutes" path="minutes" />
    </div>
    <div class="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
      <TextField v-model="draft.words" label="Tool, sound, what was seen" path="words" />
      <button type="submit" class="act min-h-11" :disabled="busy">Write the pass down</button>
    </div>
    <HoldReason v-model="reason" :refusal="refusal" @pass="make()" />
    <RefusalChoices
      v-if="refusal?.code !== 'hold point'"
      :refusal="refusal"
      @answer="(one) => answer(one, put, () => make(true))"
    />
  </form>
</template>
