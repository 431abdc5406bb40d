<script setup lang="ts">
import { computed } from 'vue'

import type { JobHours } from '@/api/generated'

/** Hours of each job against its estimate: from least to worst as a band, what was worked as a mark. */
const props = defineProps<{ hours: readonly JobHours[] }>()
const most = computed(() => Math.max(1, ...props.hours.flatMap((one) => [Number(one.worst), one.worked_h])))
const x = (value: number) => (200 * value) / most.value
</script>

<template>
  <section aria-labelledby="hours-against">
    <h2 id="hours-against" class="text-lg">Hours against the estimate</h2>
    <p v-if="!hours.length" class="text-ink-soft">Nothing was agreed yet.</p>
    <ul>
      <li v-for="one in hours" :key="one.job" class="flex flex-wrap items-center gap-x-3 py-1">
        <span class="w-36 shrink-0 truncate">{{ one.job }}</span>
        <svg width="204" height="18" aria-hidden="true" class="shrink-0">
          <rect
            :x="x(Number(one.low))"
            y="3"
            :width="Math.max(x(Number(one.worst)) - x(Number(one.low)), 2)"
            height="12"
            class="fill-iron stroke-ink-soft"
          />
          <line
            :x1="x(one.worked_h)"
            :x2="x(one.worked_h)"
            y1="0"
            y2="18"
            :class="one.worked_h > Number(one.worst) ? 'stroke-out' : 'stroke-part'"
            stroke-width="4"
          />
        </svg>
        <span class="num text-sm"
          ><b class="text-part">{{ one.worked_h.toFixed(1) }}</b> of {{ Number(one.low) }} to
          {{ Number(one.worst) }} h</span
        >
      </li>
    </ul>
  </section>
</template>
