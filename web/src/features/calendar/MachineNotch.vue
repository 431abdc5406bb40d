<script setup lang="ts">
import { computed } from 'vue'

import type { Machine } from '@/api/generated'

/** The notch of a machine in the lower edge of a rule: each has a shape of its own; work by hand is a plain edge. */
const props = defineProps<{ machine: Machine | null; x: number; width: number; y: number }>()
const mid = computed(() => props.x + props.width / 2)
const half = computed(() => Math.max(6, Math.min(props.width / 2, 9)))
const path = computed(() => {
  const [x, y, h] = [mid.value, props.y, half.value]
  switch (props.machine) {
    case 'boring mill':
      return `M${x - h},${y}h${2 * h}v12h${-2 * h}z`
    case 'hone':
      return `M${x - h},${y}h${2 * h}v5a${h},7 0 0 1 ${-2 * h},0z`
    case 'surfacer':
      return `M${x - h - 3},${y}h${2 * h + 6}v6h${-2 * h - 6}z`
    case 'press':
      return `M${x - h},${y}h${2 * h}v4h${-h + 3}v8h-6v-8h${-h + 3}z`
    case 'oven':
      return `M${x - h + 3},${y}h${2 * h - 6}l3,12h${-2 * h}z`
    case 'freezer':
      return `M${x - h},${y}h${2 * h}l-4,12h${-2 * h + 8}z`
    case 'cutter':
      return `M${x - h},${y}h${2 * h}l${-h},13z`
    default:
      return ''
  }
})
</script>

<template>
  <rect v-if="!path" :x="x" :y="y - 4" :width="Math.max(width, 2)" height="4" fill="currentColor" />
  <template v-else>
    <rect :x="x" :y="y - 4" :width="Math.max(width, 2)" height="4" fill="currentColor" />
    <path
      :d="path"
      :fill="machine === 'freezer' ? 'var(--color-paper)' : 'currentColor'"
      stroke="currentColor"
      stroke-width="1.5"
    />
  </template>
</template>
