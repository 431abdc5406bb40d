<script setup lang="ts">
import type { BlockView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import BenchHead from '@/shared/ui/BenchHead.vue'

import { missingInWords } from './order'
import type { Bench } from './useBench'
import { lensOf } from '@/shared/subjects'

/** The way out, every hole with its state, what is missing, and how readings are told back. */
const props = defineProps<{ block: BlockView; bench: Bench }>()
const { lens, spot, missing, pass } = props.bench
const firstHour = (hole: number) => ({ hole, hour: props.block.card.required_hours[0] ?? 12 })
</script>

<template>
  <BenchHead
    :to="{ name: 'block', params: { job: block.job.job_id, lens, hole: spot ? String(spot.hole) : '' } }"
    out="Block"
    :job="block.job.name"
    :what="lensOf(lens).what"
    places="Holes"
    :clock="lens === 'counterbore' ? 'cut' : 'measure'"
  >
    <button
      v-for="hole in block.holes"
      :key="hole.hole_id"
      type="button"
      class="flex min-h-11 min-w-14 items-center justify-center gap-1 rounded border px-2"
      :class="hole.number === spot?.hole ? 'border-act bg-act-wash' : 'border-rule'"
      :aria-label="`Hole ${hole.number}: ${hole.state}`"
      @click="bench.go(firstHour(hole.number))"
    >
      <b>{{ hole.number }}</b> <StateGate :state="hole.state" />
    </button>
    <template #below>
      <p class="pt-1 text-sm">
        <template v-if="missing.length"
          ><span class="text-ink-soft">{{ pass ? 'this pass still needs' : 'missing' }}</span>
          <b class="ml-1">{{ missingInWords(missing) }}</b></template
        >
        <button v-else type="button" class="link" @click="bench.startPass">
          Measure the whole block anew, zero the gauge first
        </button>
        <button v-if="pass" type="button" class="link ml-4" @click="pass = null">End this pass</button>
      </p>
    </template>
  </BenchHead>
</template>
