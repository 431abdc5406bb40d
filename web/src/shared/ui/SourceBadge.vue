<script setup lang="ts">
/** How a limit is known; anything but a specification stands out. */
defineProps<{ status: string; source?: string }>()
</script>

<template>
  <span class="text-xs" :title="source">
    <span
      v-if="status !== 'specification'"
      class="mr-1 border border-unsure px-1 whitespace-nowrap font-bold text-unsure"
      >{{ status }}</span
    >
    <span class="text-ink-soft">{{ source }}</span>
  </span>
</template>
