<script setup lang="ts">
import type { Refusal } from '@/api/ask'
import { person } from '@/shared/state/people'

import TextField from './TextField.vue'

/** A hold point in the way: what is missing, and the reason to pass it by the name of who is at work. */
defineProps<{ refusal: Refusal | null }>()
const reason = defineModel<string>({ required: true })
const emit = defineEmits<{ pass: [] }>()
</script>

<template>
  <div
    v-if="refusal?.code === 'hold point'"
    role="alert"
    class="grid gap-2 border-l-4 border-unsure py-1 pl-3"
  >
    <p>{{ refusal.message }}</p>
    <TextField v-model="reason" label="Reason to pass it" path="hold_reason_typed" />
    <button
      type="button"
      class="quiet justify-self-start"
      :disabled="reason.trim() === ''"
      @click="emit('pass')"
    >
      Pass it as {{ person?.name ?? 'nobody yet' }}; the proof prints it
    </button>
  </div>
</template>
