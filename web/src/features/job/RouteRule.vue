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
/** What was done before anything is open is one step: there is nothing to read of it any more. */
const done = computed(() => {
  const open = props.block.route.findIndex((leg) => !leg.is_done)
  return props.block.route.slice(0, open < 0 ? undefined : open)
})
const legs = computed(() =>
  props.block.route.slice(done.value.length).map((leg) => ({ leg, ticks: ticksOf(leg.hours) })),
)
const doneHours = computed(() => done.value.reduce((sum, leg) => sum + leg.hours, 0))
const tone = (leg: LegView) => (leg.is_done ? 'text-ink-soft' : leg.is_next ? 'text-act' : '')
</script>

<template>
  <nav class="no-print border-b border-rule bg-iron/60" aria-label="Route">
    <ol class="flex overflow-x-auto px-5">
      <li v-if="done.length" class="w-28 shrink-0 border-b-4 border-ink">
        <RouterLink
          :to="{ name: 'route', params: { job: block.job.job_id } }"
          class="block h-full no-underline hover:bg-sheet"
          :title="done.map((leg) => leg.title).join(', ')"
        >
          <span class="block pt-1 text-sm leading-tight font-bold text-ink-soft">
            {{ done.length }} {{ done.length === 1 ? 'step' : 'steps' }} done
          </span>
          <span class="block text-xs text-ink-soft">{{ Number(doneHours.toFixed(1)) }} h planned</span>
        </RouterLink>
      </li>
      <li
        v-for="{ leg, ticks } in legs"
        :key="leg.operation"
        class="min-w-14 flex-1"
        :class="leg.is_next ? 'min-w-40' : ''"
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
            <span class="truncate pr-2">{{ leg.short }}</span>
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
  </nav>
</template>
