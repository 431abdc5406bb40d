<script setup lang="ts">
/** The holes of a block as a row of buttons, the chosen one pressed. */
defineProps<{ holes: readonly number[]; chosen: number }>()
const emit = defineEmits<{ choose: [hole: number] }>()
</script>

<template>
  <div class="flex gap-1" role="group" aria-label="Hole">
    <button
      v-for="one in holes"
      :key="one"
      type="button"
      class="min-h-9 min-w-9 border"
      :class="one === chosen ? 'border-ink bg-ink font-bold text-paper' : 'border-rule bg-sheet'"
      :aria-pressed="one === chosen"
      :aria-label="`Hole ${one}`"
      @click="emit('choose', one)"
    >
      {{ one }}
    </button>
  </div>
</template>
