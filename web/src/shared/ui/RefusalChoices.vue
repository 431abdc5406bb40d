<script setup lang="ts">
import type { Refusal, Suggestion } from '@/api/ask'

/** A question asked back, with its answers as buttons; nothing typed is lost meanwhile. */
defineProps<{ refusal: Refusal | null }>()
const emit = defineEmits<{
  answer: [suggestion: Suggestion]
  readBefore: [what: 'repeat' | 'correct' | 'new pass']
}>()
</script>

<template>
  <div
    v-if="refusal"
    role="alert"
    class="flex flex-wrap items-center gap-x-4 gap-y-2 border-l-4 py-1 pl-3"
    :class="
      refusal.suggestions.length || refusal.code === 'read before' ? 'border-unsure' : 'border-out text-out'
    "
  >
    <span>{{ refusal.message }}</span>
    <button
      v-for="suggestion in refusal.suggestions"
      :key="suggestion.label"
      type="button"
      class="quiet text-ink"
      @click="emit('answer', suggestion)"
    >
      {{ suggestion.label }}
    </button>
    <template v-if="refusal.code === 'read before'">
      <button type="button" class="quiet" @click="emit('readBefore', 'repeat')">A repeat: keep both</button>
      <button type="button" class="quiet" @click="emit('readBefore', 'correct')">
        Correct it: strike the first
      </button>
      <button
        type="button"
        class="quiet"
        title="Zero the gauge first. What was read stays on record; the new set counts."
        @click="emit('readBefore', 'new pass')"
      >
        A new pass
      </button>
    </template>
  </div>
</template>
