<script setup lang="ts">
import type { PlanLine } from '@/api/generated'

/** The order of the work: cut the worst, look, and what follows either way. */
defineProps<{ plan: PlanLine[] }>()
</script>

<template>
  <ol
    class="grid items-center gap-x-3 gap-y-1 border-t border-rule pt-2 md:grid-cols-[auto_auto_1fr]"
    aria-label="Order of the work"
  >
    <li v-for="line in plan.slice(0, 2)" :key="line.number" class="flex items-center gap-2">
      <span
        class="grid size-8 shrink-0 place-items-center rounded-full border-2 border-ink font-bold"
        :class="line.number === 1 && 'bg-ink text-paper'"
        >{{ line.number }}</span
      >
      <span class="leading-tight"
        ><b>{{ line.title }}</b
        ><span class="block text-sm text-ink-soft">{{ line.words }}</span></span
      >
      <span class="text-xl text-ink-soft" aria-hidden="true">→</span>
    </li>
    <li>
      <ul class="text-sm leading-snug">
        <li v-for="line in plan.slice(2)" :key="line.number">{{ line.title }}</li>
      </ul>
    </li>
  </ol>
</template>
