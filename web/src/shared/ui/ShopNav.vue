<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

/** What belongs to the shop and not to one job. */
const VIEWS = [
  { name: 'shop', label: 'Gauges and people' },
  { name: 'cabinet', label: 'Masters and service' },
  { name: 'studies', label: 'Gauge studies' },
] as const
/** A study belongs to the studies. */
const route = useRoute()
const here = computed(() => (route.name === 'study' ? 'studies' : route.name))
</script>

<template>
  <nav class="flex flex-wrap gap-x-6 border-b border-rule" aria-label="Shop">
    <RouterLink
      v-for="view in VIEWS"
      :key="view.name"
      :to="{ name: view.name }"
      class="min-h-10 py-2"
      :class="here === view.name ? 'border-b-3 border-act font-bold text-ink' : 'text-ink-soft'"
      >{{ view.label }}</RouterLink
    >
  </nav>
</template>
