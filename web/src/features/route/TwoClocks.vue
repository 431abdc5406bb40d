<script setup lang="ts">
import { computed } from 'vue'

import type { ClocksView } from '@/api/generated'

/** Two clocks: hours worked against planned, and days waited. Neither runs for the other. */
const props = defineProps<{ clocks: ClocksView }>()
const R = 36
const share = computed(() => Math.min(0.999, props.clocks.worked_h / Math.max(props.clocks.planned_h, 0.1)))
const slice = (part: number) => {
  const turn = part * 2 * Math.PI
  const x = (R * Math.sin(turn)).toFixed(2)
  const y = (-R * Math.cos(turn)).toFixed(2)
  return `M0 0V${-R}A${R} ${R} 0 ${part > 0.5 ? 1 : 0} 1 ${x} ${y}z`
}
const TICKS = Array.from({ length: 12 }, (_, at) => at * 30)
const days = computed(() => props.clocks.waited_h / 24)
</script>

<template>
  <section class="flex flex-wrap gap-x-8 gap-y-3" aria-label="Clocks">
    <div v-for="clock in ['working', 'waiting'] as const" :key="clock" class="flex items-center gap-3">
      <svg v-legible viewBox="-44 -44 88 88" width="84" height="84" aria-hidden="true">
        <defs>
          <pattern
            id="hatch"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V6" class="stroke-unsure" stroke-width="2" />
          </pattern>
        </defs>
        <circle :r="R" class="fill-sheet stroke-ink" stroke-width="2" />
        <path v-if="clock === 'working'" :d="slice(share)" class="fill-ink" />
        <path v-else :d="slice(Math.min(0.999, days / 28))" fill="url(#hatch)" />
        <path
          v-for="tick in TICKS"
          :key="tick"
          d="M0-37V-42"
          class="stroke-ink"
          stroke-width="1.6"
          :transform="`rotate(${tick})`"
        />
      </svg>
      <p class="leading-tight">
        <span class="block text-sm text-ink-soft">{{ clock }}</span>
        <template v-if="clock === 'working'">
          <b class="block text-xl">{{ clocks.worked_h.toFixed(1) }} h</b>
          <span class="block text-sm text-ink-soft">of {{ clocks.planned_h.toFixed(1) }}</span>
          <b class="text-sm" :class="clocks.running.length ? 'text-act' : 'text-ink-soft'">
            {{ clocks.running.length ? `runs: ${clocks.running.map((one) => one.by).join(', ')}` : 'stands' }}
          </b>
        </template>
        <template v-else>
          <b class="block text-xl">{{ days.toFixed(1) }} d</b>
          <span class="block text-sm text-ink-soft">of four weeks round</span>
          <b class="text-sm" :class="clocks.is_waiting ? 'text-unsure' : 'text-ink-soft'">{{
            clocks.is_waiting ? 'runs' : 'stands'
          }}</b>
        </template>
      </p>
    </div>
  </section>
</template>
