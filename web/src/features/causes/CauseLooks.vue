<script setup lang="ts">
import { computed } from 'vue'

import type { HoleOffView } from '@/api/generated'

import { endsOf, stemsOf } from './stems'

/** How the readings would look if one explanation were so: the same stems, small, under the readings themselves. */
const props = defineProps<{
  holes: readonly HoleOffView[]
  looks: readonly number[]
  wide: number
  likely: boolean
}>()
const TALL = 34
const stems = computed(() => stemsOf(props.holes, props.wide))
const ends = computed(() => endsOf(stems.value))
const y = (metres: number) =>
  3 +
  ((ends.value.high - Math.min(Math.max(metres, ends.value.low), ends.value.high)) /
    (ends.value.high - ends.value.low)) *
    (TALL - 6)
const bars = computed(() =>
  stems.value.flatMap((one) => one.stems).map((stem, at) => ({ x: stem.x, value: props.looks[at] ?? 0 })),
)
</script>

<template>
  <svg v-legible :viewBox="`0 0 ${wide} ${TALL}`" class="block w-full" aria-hidden="true">
    <path :d="`M0 ${y(0)}H${wide}`" class="stroke-ink-soft" stroke-width="1" />
    <g :class="likely ? 'stroke-part fill-part' : 'stroke-ink-soft fill-ink-soft'">
      <template v-for="bar in bars" :key="bar.x">
        <path v-if="Math.abs(bar.value) > 5e-7" :d="`M${bar.x} ${y(0)}V${y(bar.value)}`" stroke-width="5" />
        <circle v-else :cx="bar.x" :cy="y(0)" r="1.4" stroke="none" />
      </template>
    </g>
  </svg>
</template>
