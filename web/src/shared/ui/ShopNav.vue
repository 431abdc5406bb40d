<script setup lang="ts">
import { useRoute } from 'vue-router'

import { SHOP_VIEWS } from '@/shared/subjects'

const route = useRoute()
</script>

<template>
  <nav class="flex flex-wrap gap-x-6 border-b border-rule" aria-label="In the shop">
    <RouterLink
      v-for="view in SHOP_VIEWS"
      :key="view.name"
      :to="{ name: view.name }"
      class="min-h-10 py-2"
      :class="
        view.of.includes(String(route.name)) ? 'border-b-3 border-act font-bold text-ink' : 'text-ink-soft'
      "
      >{{ view.label }}</RouterLink
    >
  </nav>
</template>
