<script setup lang="ts">
import { computed } from 'vue'

import type { LensView } from '@/api/generated'
import { type Lens, lensOf } from '@/shared/subjects'

/** A lens that holds features against each other: what it holds, and how far they are read. */
const props = defineProps<{ lens: Lens; waiting: LensView; jobId: string }>()
const SAYS: Partial<Record<Lens, string>> = {
  distortion: 'Distortion holds a bore clamped against the same bore free: what the head does to it.',
  clearance: 'Clearance holds every piston against its bore, on the diameter.',
}
const label = lensOf(props.lens).label
const isRead = computed(() => props.waiting.waits_for.every((one) => one.of > 0 && one.read === one.of))
const ALREADY: Partial<Record<Lens, string>> = {
  distortion:
    'All of it is read once. Read it again with the plate or the head on, at the same places: only then does it say what the load does.',
  clearance:
    'All of it is read. What bore less skirt leaves stands at the bench of each piston, under Measuring.',
}
</script>

<template>
  <section class="max-w-2xl py-4" :aria-label="label">
    <p class="text-lg">{{ SAYS[lens] }}</p>
    <p class="mt-3" :class="isRead ? '' : 'text-ink-soft'">
      {{ isRead ? ALREADY[lens] : 'It waits for its readings. What is read so far:' }}
    </p>
    <ul class="mt-1">
      <li
        v-for="one in waiting.waits_for"
        :key="one.quantity"
        class="flex items-baseline justify-between gap-4 border-b border-rule py-1.5"
      >
        <span>{{ one.quantity }}</span>
        <span :class="one.read === one.of && one.of > 0 ? 'text-in' : 'text-ink-soft'"
          >{{ one.read }} of {{ one.of }} read in full</span
        >
      </li>
    </ul>
    <div class="mt-4 flex gap-3">
      <RouterLink class="quiet inline-flex items-center" :to="{ name: 'measure', params: { job: jobId } }">{{
        isRead ? 'Measuring' : 'Measure them'
      }}</RouterLink>
    </div>
  </section>
</template>
