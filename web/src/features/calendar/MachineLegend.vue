<script setup lang="ts">
import { computed } from 'vue'

import type { CalendarView, Machine } from '@/api/generated'

import MachineNotch from './MachineNotch.vue'
import { momentWords } from './words'

/** What each notch is, and which job stands there next; the calendar of each as a file. */
const props = defineProps<{ view: CalendarView }>()
const machines = computed(() => {
  const bars = props.view.jobs.flatMap((job) => job.bars.map((bar) => ({ name: job.name, bar })))
  return (Object.keys(props.view.machines) as Machine[]).map((machine) => {
    const next = bars
      .filter(({ bar }) => bar.machine === machine)
      .sort((a, b) => a.bar.start.localeCompare(b.bar.start))[0]
    return { machine, next: next ? `${next.name}, ${momentWords(next.bar.start)}` : 'nothing laid out' }
  })
})
const clashes = computed(() => props.view.clashes.slice(0, 3))
const file = (machine: Machine) => `/api/calendar.ics?machine=${encodeURIComponent(machine)}`
</script>

<template>
  <section aria-labelledby="notches">
    <h2 id="notches" class="text-lg">Notches</h2>
    <ul class="text-sm">
      <li v-for="one in machines" :key="one.machine" class="flex items-center gap-2 py-0.5">
        <svg width="26" height="18" aria-hidden="true" class="shrink-0 text-ink">
          <MachineNotch :machine="one.machine" :x="4" :width="18" :y="4" />
        </svg>
        <b class="w-24 shrink-0">{{ one.machine }}</b>
        <span class="min-w-0 text-ink-soft">{{ one.next }}</span>
        <a class="link ml-auto" :href="file(one.machine)" :aria-label="`.ics of the ${one.machine}`">.ics</a>
      </li>
    </ul>
    <ul v-if="clashes.length" class="mt-2 text-sm" aria-label="Clashes">
      <li v-for="one in clashes" :key="`${one.at}${one.waits}`" class="text-unsure">
        Both want the {{ one.machine }}: <b>{{ one.first }} first</b>, {{ one.waits }} from
        {{ momentWords(one.at) }}, {{ one.hours }} h later.
      </li>
    </ul>
  </section>
</template>
