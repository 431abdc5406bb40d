<script setup lang="ts">
/** The sides of a question that shops answer differently, each with its reason; the dark one is followed. */
defineProps<{
  title: string
  sides: readonly { name: string; reason: string; chosen: boolean }[]
  disabled?: boolean
}>()
const emit = defineEmits<{ choose: [name: string] }>()
</script>

<template>
  <div class="mt-1 grid gap-2 sm:grid-cols-2" role="group" :aria-label="title">
    <button
      v-for="side in sides"
      :key="side.name"
      type="button"
      class="border px-3 py-1.5 text-left"
      :class="side.chosen ? 'border-ink bg-ink text-paper' : 'border-rule bg-sheet hover:border-ink-soft'"
      :aria-pressed="side.chosen"
      :disabled="disabled"
      @click="emit('choose', side.name)"
    >
      <b class="block">{{ side.name }}</b>
      <span class="block text-sm" :class="side.chosen ? '' : 'text-ink-soft'">{{ side.reason }}</span>
    </button>
  </div>
</template>
