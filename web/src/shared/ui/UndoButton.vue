<script setup lang="ts">
import { computed } from 'vue'

import type { Undo } from '@/shared/state/useUndo'

/** Undo, with what it will take back on the button. */
const props = defineProps<{ undo: Undo; asked?: boolean }>()
const emit = defineEmits<{ undo: [] }>()
const { next, underWay } = props.undo
const words = computed(() => {
  if (props.asked) return 'the entry asked about'
  if (underWay.value) return 'what is being recorded'
  return next.value?.words ?? 'nothing of yours'
})
</script>

<template>
  <button
    type="button"
    class="quiet min-h-11 min-w-0 text-left leading-tight"
    :title="`Ctrl+Z takes back: ${words}`"
    :aria-label="`Undo: ${words}`"
    @click="emit('undo')"
  >
    Undo
    <span class="block max-w-52 truncate max-lg:max-w-20 text-xs font-normal text-ink-soft">{{ words }}</span>
  </button>
</template>
