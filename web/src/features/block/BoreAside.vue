<script setup lang="ts">
import { computed } from 'vue'

import type { BoreView } from '@/api/generated'
import WallTracks from '@/shared/charts/WallTracks.vue'
import { STATE_TONE } from '@/shared/format/tones'
import { placeKey } from '@/shared/state/places'

import { isOnlyRead } from './faces'
import HoleNeeds from './HoleNeeds.vue'
import type { BoreLevelAt } from './useBores'

/** The hole at hand down its depth, and what it needs. */
const props = defineProps<{
  bore: BoreView
  level: BoreLevelAt | null
  axis: number | null
  tip: number | null
}>()
const emit = defineEmits<{ choose: [place: { level: string; axis: number | null }]; act: []; why: [] }>()

const survey = computed(() => props.bore.survey)
const at = computed(() => {
  const rows = survey.value.places.filter(
    (row) => Number(row.place.level_um) === Number(props.level?.depth_um),
  )
  const row = rows.find((one) => one.place.axis_deg === props.axis) ?? rows[0]
  return row ? placeKey(row.place) : null
})
function choose(key: string): void {
  const row = survey.value.places.find((one) => placeKey(one.place) === key)
  if (row) emit('choose', { level: String(Number(row.place.level_um)), axis: props.axis })
}
const words = computed(() => {
  const { state, reason } = survey.value.part
  if (isOnlyRead(props.bore)) return 'is read; no limit decides it'
  return state === 'in' ? 'is in' : reason || state
})
const pattern = computed(() => survey.value.pattern)
</script>

<template>
  <h2 class="max-lg:order-first text-lg leading-tight">
    Hole {{ bore.hole }}
    <span :class="isOnlyRead(bore) ? 'text-ink-soft' : STATE_TONE[survey.part.state]">{{ words }}</span>
  </h2>
  <p class="text-sm text-ink-soft">
    {{ survey.quantity }}, the wall down its depth: {{ pattern.levels.length }} levels,
    {{ pattern.axes_deg.length }} axes, on the diameter
  </p>
  <p class="flex gap-4 text-sm">
    <RouterLink class="link" :to="{ name: 'honing', params: { hole: String(bore.hole) } }"
      >Hone it</RouterLink
    >
    <RouterLink class="link" :to="{ name: 'pistons' }">Pistons</RouterLink>
  </p>
  <WallTracks class="mx-auto max-h-[44vh]" :survey="survey" :at="at" :tip="tip" plain @choose="choose" />
  <HoleNeeds
    class="max-lg:order-first mt-2"
    :number="bore.hole"
    :need="bore.need"
    @act="emit('act')"
    @why="emit('why')"
  />
</template>
