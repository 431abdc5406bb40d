<script setup lang="ts">
import { AREAS } from './areas'

/** Over every screen of practice, and on every print of one: nothing here is a job. */
defineProps<{ area?: string }>()
</script>

<template>
  <Teleport defer to="#header-job">
    <p class="leading-tight">
      <span class="block font-bold tracking-wide">PRACTICE</span>
      <span class="block text-xs text-ink-soft max-sm:sr-only">generated, apart from jobs</span>
    </p>
    <nav aria-label="Areas of practice" class="flex gap-x-4 text-sm max-lg:hidden">
      <RouterLink
        v-for="{ key, label } in AREAS"
        :key="key"
        :to="{ name: 'practice', hash: `#${key.replace(' ', '-')}` }"
        class="min-h-8 py-1 whitespace-nowrap"
        :class="area === key ? 'border-b-3 border-act font-bold' : 'text-ink-soft'"
        >{{ label }}</RouterLink
      >
    </nav>
  </Teleport>
</template>
