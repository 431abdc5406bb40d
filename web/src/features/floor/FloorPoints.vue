<script setup lang="ts">
import { computed } from 'vue'

import type { FloorStrip } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'

/** What a job says from across the floor beside its rings: surveys, zeros, hold points, waits, its day. */
const props = defineProps<{ strip: FloorStrip }>()
const MOST = 4
/** Its day stands with the promise. */
const points = computed(() =>
  props.strip.points.filter((one) => one.kind !== 'late' && one.kind !== 'due soon'),
)
const place = (kind: string) => ({
  name: ['out', 'cannot tell', 'read again', 'zero doubtful'].includes(kind) ? 'measure' : 'route',
  params: { job: props.strip.job.job_id },
})
</script>

<template>
  <ul v-if="points.length" class="mt-2 grid gap-1" :aria-label="`What ${strip.job.name} says`">
    <li v-for="(one, at) in points.slice(0, MOST)" :key="at">
      <RouterLink :to="place(one.kind)" class="flex items-start gap-2 text-sm hover:underline">
        <StateGate :state="one.state" class="mt-0.5 shrink-0" />
        <span
          ><b>{{ one.kind }}</b> · {{ one.words }}</span
        >
      </RouterLink>
    </li>
    <li v-if="points.length > MOST" class="text-sm text-ink-soft">and {{ points.length - MOST }} more</li>
  </ul>
</template>
