<script setup lang="ts">
import { computed } from 'vue'

import type { FloorStrip } from '@/api/generated'
import LimitRing from '@/shared/charts/LimitRing.vue'
import StateGate from '@/shared/charts/StateGate.vue'

/** The rings of a job on a small screen: each leads to its hole, numbers in the size of the page. */
const props = defineProps<{ strip: FloorStrip; numbers: number[] }>()
const holes = computed(() =>
  props.numbers.flatMap((number) => props.strip.holes.filter((hole) => hole.number === number)),
)
</script>

<template>
  <ul class="flex flex-wrap gap-1" :aria-label="`Holes of ${strip.job.name}`">
    <li v-for="hole in holes" :key="hole.number" class="max-w-14 min-w-11 flex-1">
      <RouterLink
        :to="{ name: 'home', params: { job: strip.job.job_id, hole: String(hole.number) } }"
        class="grid justify-items-center"
        :aria-label="`Hole ${hole.number}: ${hole.state}`"
      >
        <span class="relative block w-full">
          <svg viewBox="-54 -54 108 108" class="block w-full" aria-hidden="true">
            <LimitRing
              :number="hole.number"
              :least="hole.least_m"
              :greatest="hole.greatest_m"
              :marks="hole.marks.map((mark) => ({ hour: mark.hour, value: mark.mean_m, state: mark.state }))"
              unnumbered
            />
          </svg>
          <b class="absolute inset-0 flex items-center justify-center" aria-hidden="true">{{
            hole.number
          }}</b>
        </span>
        <StateGate :state="hole.state" />
      </RouterLink>
    </li>
  </ul>
</template>
