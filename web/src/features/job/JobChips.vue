<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import type { BlockView, State } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { useNarrow } from '@/shared/state/useNarrow'
import { JOB_VIEWS } from '@/shared/subjects'

import JobNav from './JobNav.vue'

/** Job, its views, and how many holes stand how. */
const props = defineProps<{ block: BlockView }>()
const route = useRoute()
const isNarrow = useNarrow()
/** The worst first; a state that no hole is in is not said. */
const STATES: State[] = ['out', 'cannot tell', 'read again', 'not measured', 'in']
const counts = computed(() =>
  STATES.map(
    (state) => [state, props.block.holes.filter((hole) => hole.state === state).length] as const,
  ).filter(([, count]) => count > 0),
)
const views = computed(() => {
  const params = { job: props.block.job.job_id }
  const has = new Set<string>(props.block.lenses.map((one) => one.name))
  const offered = JOB_VIEWS.filter(
    ({ lens: of }) => !of || (of.startsWith('-') ? !has.has(of.slice(1)) : has.has(of)),
  )
  return offered.map((view) => ({
    label: view.label,
    to: { name: view.name, params },
    isNow: view.of.includes(String(route.name)),
  }))
})
</script>

<template>
  <div class="min-w-0">
    <component :is="route.name === 'block' ? 'h1' : 'p'" class="truncate leading-tight font-bold">
      {{ block.job.name }}
    </component>
    <p v-if="!isNarrow" class="truncate text-xs text-ink-soft">
      {{ block.card.engine }} · job {{ block.job.number }}
    </p>
  </div>
  <ul v-if="isNarrow" class="flex shrink-0 gap-2" aria-label="Holes by state">
    <li v-for="[state, count] in counts" :key="state" class="flex items-center gap-1">
      <StateGate :state="state" /><b class="num">{{ count }}</b>
    </li>
  </ul>
  <Teleport v-if="isNarrow" defer to="#menu-job">
    <JobNav :views="views" class="gap-x-5 [&>a]:min-h-11" />
  </Teleport>
  <JobNav v-else :views="views" class="gap-x-2 text-sm" />
</template>
