<script setup lang="ts">
import type { Taken } from '@/shared/state/useTaken'

/** What was taken last, or why nothing was taken. */
const props = defineProps<{ taken: Taken }>()
const { words, missed } = props.taken
</script>

<template>
  <span class="block min-h-7 text-lg" role="status" aria-label="Taken">
    <template v-if="words"
      >taken: <b class="num whitespace-normal">{{ words }}</b></template
    >
    <b v-else-if="missed" class="text-unsure">not taken: {{ missed }}</b>
  </span>
</template>
