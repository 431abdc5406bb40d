<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'

/** The views of one job, the one that is open marked. */
defineProps<{ views: { label: string; to: RouteLocationRaw; isNow: boolean }[] }>()
</script>

<template>
  <nav aria-label="Job" class="flex flex-wrap whitespace-nowrap">
    <RouterLink
      v-for="view in views"
      :key="view.label"
      :to="view.to"
      class="py-1"
      :class="view.isNow ? 'border-b-3 border-act font-bold' : 'text-ink-soft'"
      :aria-current="view.isNow ? 'page' : undefined"
      >{{ view.label }}</RouterLink
    >
  </nav>
</template>
