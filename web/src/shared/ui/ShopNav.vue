<script setup lang="ts">
/** What belongs to the shop and not to one job. */
const VIEWS = [
  { name: 'shop', label: 'Gauges and people' },
  { name: 'cabinet', label: 'Masters and service' },
  { name: 'studies', label: 'Gauge studies' },
] as const
</script>

<template>
  <nav class="flex flex-wrap gap-x-6 border-b border-rule" aria-label="Shop">
    <RouterLink
      v-for="view in VIEWS"
      :key="view.name"
      :to="{ name: view.name }"
      class="min-h-10 py-2 text-ink-soft"
      exact-active-class="border-b-3 border-act font-bold text-ink"
      >{{ view.label }}</RouterLink
    >
  </nav>
</template>
