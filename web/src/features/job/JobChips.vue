<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import type { BlockView } from '@/api/generated'
import { uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Job, its views, and the gauge in hand. */
const props = defineProps<{ block: BlockView }>()
const route = useRoute()
const quantity = computed(() => (route.params['lens'] === 'counterbore' ? 'counterbore depth' : 'protrusion'))
const setup = computed(() => props.block.setups.find((one) => one.quantity === quantity.value))
const views = computed(() => {
  const job = props.block.job.job_id
  return [
    { label: 'Block', to: { name: 'block', params: { job, lens: 'protrusion' } }, names: ['block', 'cut'] },
    { label: 'Measuring', to: { name: 'measure', params: { job } }, names: ['measure'] },
    { label: 'Liners', to: { name: 'liners', params: { job } }, names: ['liners'] },
    { label: 'Card', to: { name: 'job-card', params: { job } }, names: ['job-card'] },
    { label: 'Proof', to: { name: 'proof', params: { job } }, names: ['proof', 'import'] },
  ]
})
const setupView = computed(() => ({
  name: 'block',
  params: {
    job: props.block.job.job_id,
    lens: String(route.params['lens'] ?? 'protrusion'),
    hole: String(route.params['hole'] ?? ''),
  },
  query: { ...route.query, open: 'setup' },
}))
const isNow = (names: string[]) => names.includes(String(route.name))
</script>

<template>
  <div class="min-w-0">
    <h1 class="truncate leading-tight font-bold">{{ block.job.name }}</h1>
    <p class="truncate text-xs text-ink-soft">{{ block.card.engine }} · job {{ block.job.number }}</p>
  </div>
  <nav aria-label="Job" class="flex gap-3 text-sm">
    <RouterLink
      v-for="view in views"
      :key="view.label"
      :to="view.to"
      class="py-1"
      :class="isNow(view.names) ? 'border-b-3 border-act font-bold' : 'text-ink-soft'"
      >{{ view.label }}</RouterLink
    >
  </nav>
  <RouterLink
    :to="setupView"
    class="quiet ml-auto flex items-center gap-1 text-sm"
    :class="setup?.cautions.length || setup?.capability === 'wrong tool' ? 'border-unsure text-unsure' : ''"
    title="Gauge, land, datum and clamp"
  >
    <template v-if="setup">
      <b>{{ setup.gauge.name }}</b>
      <span class="num">±{{ uncertaintyText(setup.expanded_m, unit) }} {{ unit }}</span>
    </template>
    <template v-else>Choose a gauge</template>
  </RouterLink>
</template>
