<script setup lang="ts">
import type { BlockView, HoleView } from '@/api/generated'
import { STATE_TONE } from '@/shared/format/tones'
import type { ClockLens } from '@/shared/subjects'

import HoleNeeds from './HoleNeeds.vue'
import HoleSection from './HoleSection.vue'
import HoleSummary from './HoleSummary.vue'

/** The chosen hole beside the deck: its state, its section, and what it needs. */
defineProps<{
  block: BlockView
  hole: HoleView
  lens: ClockLens
  hour: number | null
  /** What is typed and not taken yet. [m] */
  tip: number | null
}>()
const emit = defineEmits<{ act: []; why: [] }>()
</script>

<template>
  <h2 class="text-lg leading-tight">
    Hole {{ hole.number }}
    <span :class="STATE_TONE[hole.state]">{{
      hole.state === 'in' ? 'is in' : hole.reason || hole.state
    }}</span>
  </h2>
  <HoleSummary :hole="hole" :lens="lens" />
  <HoleSection :block="block" :hole="hole" :hour="hour" :preview-value="tip" />
  <HoleNeeds class="mt-2" :number="hole.number" :need="hole.need" @act="emit('act')" @why="emit('why')" />
</template>
