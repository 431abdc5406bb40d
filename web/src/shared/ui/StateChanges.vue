<script setup lang="ts">
import type { ChangedState } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'

/** What would become of each hole and part before it is done. */
defineProps<{ changes: readonly ChangedState[] }>()
</script>

<template>
  <p v-if="changes.length === 0">No hole and no part changes its state.</p>
  <ul v-else aria-label="What changes">
    <li v-for="change in changes" :key="change.where" class="flex flex-wrap items-center gap-x-2">
      <b>{{ change.where }}</b> <StateGate :state="change.before" /> {{ change.before }} →
      <StateGate :state="change.after" /> {{ change.after }}
      <span v-if="change.reason" class="text-ink-soft">{{ change.reason }}</span>
    </li>
  </ul>
</template>
