<script setup lang="ts">
import type { StandingView } from '@/api/generated'

import { hours, money } from './words'

/** Where a finding tears the estimate: what is needed beside what was agreed. */
defineProps<{ standing: StandingView; currency: string }>()
const wave = `M0,6${'q12,-8 24,0t24,0'.repeat(40)}`
</script>

<template>
  <section
    aria-labelledby="found-title"
    class="my-1 overflow-hidden"
    :class="standing.is_broken ? 'text-out' : 'text-unsure'"
  >
    <svg width="100%" height="12" aria-hidden="true" class="block" preserveAspectRatio="none">
      <path :d="wave" fill="none" stroke="currentColor" stroke-width="1.5" />
    </svg>
    <div class="flex flex-wrap items-baseline gap-x-4 py-1">
      <h2 id="found-title" class="text-base">Found beside what was agreed</h2>
      <b class="num ml-auto">+{{ money(standing.found_money) }} {{ currency }}</b>
    </div>
    <ul class="grid gap-x-8 text-ink md:grid-cols-2">
      <li
        v-for="one in standing.found"
        :key="`${one.key}${one.words}`"
        class="flex gap-3 border-b border-rule py-1"
      >
        <span class="min-w-0 flex-1">{{ one.words }}</span>
        <span v-if="one.sheet !== 'parts'" class="num text-ink-soft">{{ hours(one.worst) }} h</span>
        <b class="num" :class="standing.is_broken ? 'text-out' : 'text-unsure'">+{{ money(one.money) }}</b>
      </li>
    </ul>
    <svg width="100%" height="12" aria-hidden="true" class="block" preserveAspectRatio="none">
      <path :d="wave" fill="none" stroke="currentColor" stroke-width="1.5" />
    </svg>
  </section>
</template>
