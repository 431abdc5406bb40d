<script setup lang="ts">
import type { FitView } from '@/api/generated'

/** What else there is to a fit: how it holds hot, how it gets in by heat and cold, its conversion, its card. */
defineProps<{ fit: FitView }>()
</script>

<template>
  <p class="mt-3 flex gap-5">
    <RouterLink
      class="link"
      :to="{
        name: 'hot-fit',
        params: { hole: String(fit.hole) },
        query: fit.liner ? { liner: fit.liner } : {},
      }"
      >What holds it hot</RouterLink
    >
    <RouterLink
      class="link"
      :to="{
        name: 'heat',
        params: { hole: String(fit.hole) },
        query: fit.liner ? { liner: fit.liner } : {},
      }"
      >Heat and cold</RouterLink
    >
    <RouterLink
      v-if="fit.is_conversion"
      class="link"
      :to="{ name: 'conversion', params: { hole: String(fit.hole) } }"
      >The conversion</RouterLink
    >
    <RouterLink class="link" :to="{ name: 'job-card' }">The card: press wanted, walls, holder</RouterLink>
  </p>
</template>
