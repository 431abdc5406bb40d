<script setup lang="ts">
import type { Taken } from '@/shared/state/useTaken'

/** What was taken last, or that it was undone. */
const props = defineProps<{ taken: Taken }>()
const { words, undone } = props.taken
</script>

<template>
  <span class="block min-h-7 text-lg" role="status" aria-label="Taken">
    <template v-if="words"
      >taken: <b class="num whitespace-normal">{{ words }}</b></template
    >
    <template v-else-if="undone">undone: what was recorded last</template>
  </span>
</template>
