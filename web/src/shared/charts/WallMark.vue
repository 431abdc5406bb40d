<script setup lang="ts">
import { computed } from 'vue'

import type { PlaceReadView } from '@/api/generated'
import { markTone } from '@/shared/format/tones'

import type { Across } from './wall'

/** One reading on the wall: its bar lies as its axis does; hollow is what cannot be told; off the track says how far. */
const props = defineProps<{
  row: PlaceReadView
  direction: number | null
  beyond: Across['beyond']
  text: string
}>()
const MARK = 9
const isHollow = computed(
  () => props.row.value_m === null || props.row.state === 'cannot tell' || props.row.doubtful,
)
const tone = computed(() => (props.row.value_m === null ? 'text-ink-soft' : markTone(props.row)))
</script>

<template>
  <g :class="tone">
    <path
      v-if="direction !== null"
      :d="`M${-MARK} 0H${MARK}`"
      :transform="`rotate(${direction})`"
      stroke="currentColor"
      stroke-width="3"
      :stroke-dasharray="row.doubtful ? '3 2' : undefined"
    />
    <circle
      :r="isHollow ? 4 : 3.5"
      :fill="isHollow ? 'var(--color-paper)' : 'currentColor'"
      stroke="currentColor"
    />
    <text
      v-if="beyond"
      :x="beyond === 'left' ? 14 : -14"
      y="5"
      :text-anchor="beyond === 'left' ? 'start' : 'end'"
      font-size="13"
      fill="currentColor"
      class="num"
    >
      {{ beyond === 'left' ? '◂' : '' }}{{ text }}{{ beyond === 'right' ? '▸' : '' }}
    </text>
  </g>
</template>
