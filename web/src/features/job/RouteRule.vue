<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, LegView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'

import { ticksOf } from './ticks'

/** The route in short, as a steel rule: its ticks are planned quarter hours, its operations stand in order. */
const props = defineProps<{ block: BlockView }>()

const to = (leg: LegView) => ({
  name: 'route',
  params: { job: props.block.job.job_id },
  query: { at: leg.operation },
})
/** What is done and stands is drawn narrow: there is nothing to read of it any more. */
const legs = computed(() => props.block.route.map((leg) => ({ leg, ticks: ticksOf(leg.hours) })))
const tone = (leg: LegView) => (leg.is_done ? 'text-ink-soft' : leg.is_next ? 'text-act' : '')
const saysMore = (leg: LegView) => !leg.is_done && (leg.is_next || leg.words.startsWith('waits'))
</script>

<template>
  <ol class="no-print flex overflow-x-auto border-b border-rule bg-iron/60 px-5" aria-label="Route">
    <li
      v-for="{ leg, ticks } in legs"
      :key="leg.operation"
      class="min-w-16 flex-1"
      :class="saysMore(leg) ? 'min-w-32' : ''"
      :style="{ flexGrow: leg.is_done ? 1 : 2 + leg.hours }"
    >
      <RouterLink
        :to="to(leg)"
        class="block h-full w-full text-left no-underline hover:bg-sheet"
        :title="`${leg.title}: ${leg.words}`"
        :aria-current="leg.is_next ? 'step' : undefined"
      >
        <span class="flex items-center gap-1 pt-1 text-sm leading-tight font-bold" :class="tone(leg)">
          <StateGate v-if="leg.state === 'read again'" state="read again" class="-ml-1 shrink-0" />
          <span class="truncate">{{ leg.short }}</span>
        </span>
        <span
          class="block truncate pr-2 text-xs"
          :class="leg.words.startsWith('waits') ? 'text-unsure' : 'text-ink-soft'"
        >
          {{ leg.words }}
        </span>
        <svg
          class="block h-3 w-full"
          preserveAspectRatio="none"
          :viewBox="`0 0 ${ticks.length} 10`"
          aria-hidden="true"
        >
          <rect v-if="leg.is_done" y="7" :width="ticks.length" height="3" class="fill-ink" />
          <line
            v-for="tick in ticks"
            :key="tick.at"
            :x1="tick.at"
            :x2="tick.at"
            :y1="tick.from"
            y2="10"
            vector-effect="non-scaling-stroke"
            :class="leg.is_next && tick.at === 0 ? 'stroke-act' : 'stroke-ink-soft'"
            :stroke-width="leg.is_next && tick.at === 0 ? 4 : 1"
          />
        </svg>
      </RouterLink>
    </li>
  </ol>
</template>
