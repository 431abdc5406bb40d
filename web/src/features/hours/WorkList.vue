<script setup lang="ts">
import { computed } from 'vue'

import type { ClockNowView, StretchView } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { useJob } from '@/shared/state/job'

/** Every stretch of work, the newest first; what is wrong is struck on the tape of the job. */
const props = defineProps<{ worked: readonly StretchView[]; running: readonly ClockNowView[] }>()
const job = useJob()
const newest = computed(() => [...props.worked].reverse().slice(0, 12))
const runs = (one: StretchView) =>
  props.running.some((clock) => clock.by === one.by && clock.since === one.start)
</script>

<template>
  <section aria-labelledby="stretches">
    <h2 id="stretches" class="text-lg">Work on the clock</h2>
    <p v-if="!newest.length" class="text-ink-soft">No clock has run on this job yet.</p>
    <ul class="text-sm">
      <li v-for="one in newest" :key="`${one.by}${one.start}`" class="flex gap-3 border-b border-rule py-1">
        <span class="num w-28 shrink-0">{{ whenText(one.start) }}</span>
        <span class="min-w-0 flex-1"
          >{{ one.title }}, {{ one.by }}
          <span v-if="one.bill !== 'within what was agreed'" class="text-unsure">({{ one.bill }})</span></span
        >
        <b class="num" :class="runs(one) ? 'text-act' : ''"
          >{{ one.hours.toFixed(2) }} h{{ runs(one) ? ', runs' : '' }}</b
        >
      </li>
    </ul>
    <p class="text-sm text-ink-soft">
      A start or a stop that is wrong is struck on the
      <RouterLink class="link" :to="{ name: 'proof', params: { job: job.jobId } }">tape</RouterLink>; then
      type it anew.
    </p>
  </section>
</template>
