<script setup lang="ts">
import { computed } from 'vue'

import StateGate from '@/shared/charts/StateGate.vue'
import { unit } from '@/shared/state/preferences'

import { type PictureOf, smallWords } from './pictures'

/** A row of holes between two limits: what was read, and once it is over what is true. */
const props = defineProps<{ row: PictureOf<'holes'> }>()
const limits = computed(() =>
  [props.row.least_m, props.row.greatest_m].filter((one): one is number => one !== null && one !== undefined),
)
const far = computed(() => {
  const all = props.row.holes.flatMap((hole) => [hole.value_m ?? 0, hole.truth_m ?? hole.value_m ?? 0])
  const low = Math.min(0, ...all, ...limits.value)
  const high = Math.max(1e-6, ...all, ...limits.value)
  return { low: low - (high - low) * 0.12, high: high + (high - low) * 0.12 }
})
const y = (value: number) => 118 - ((value - far.value.low) / (far.value.high - far.value.low)) * 104
</script>

<template>
  <figure>
    <figcaption class="flex flex-wrap justify-between gap-x-3 font-bold">
      {{ row.title
      }}<span class="font-normal text-ink-soft">{{ row.note }} {{ limits.length ? unit : '' }}</span>
    </figcaption>
    <ol class="mt-1 flex flex-wrap gap-x-2 gap-y-3">
      <li v-for="hole in row.holes" :key="hole.hole" class="min-w-[5.4rem] flex-1">
        <svg viewBox="0 0 100 124" class="block w-full max-w-[9rem] rounded-sm bg-sheet" aria-hidden="true">
          <rect
            v-if="limits.length === 2"
            x="0"
            :y="y(limits[1] ?? 0)"
            width="100"
            :height="Math.max(1, y(limits[0] ?? 0) - y(limits[1] ?? 0))"
            class="fill-track"
          />
          <path :d="`M0 ${y(0)}H100`" class="stroke-ink-soft" stroke-width="1.2" />
          <path
            v-if="hole.truth_m !== null && hole.truth_m !== undefined"
            :d="`M18 ${y(hole.truth_m)}H82`"
            class="stroke-ink"
            stroke-width="4"
          />
          <circle v-if="hole.value_m !== null" cx="50" :cy="y(hole.value_m)" r="7" class="fill-part" />
        </svg>
        <p class="flex items-center gap-1 font-bold">
          {{ hole.hole }}<StateGate v-if="hole.state !== 'not read'" :state="hole.state" />
          <span v-if="hole.value_m !== null" class="num">{{ smallWords(hole.value_m, unit) }}</span>
        </p>
        <p v-if="hole.truth_m !== null && hole.truth_m !== undefined" class="text-sm">
          truth <span class="num">{{ smallWords(hole.truth_m, unit) }}</span>
        </p>
        <p v-if="hole.words" class="text-sm text-ink-soft">{{ hole.words }}</p>
      </li>
    </ol>
  </figure>
</template>
