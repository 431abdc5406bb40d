<script setup lang="ts">
import { computed } from 'vue'

/** Hours of one operation on a small steel rule: quartiles as planned, the worst case as its end, what it took in blue. */
const props = defineProps<{
  low: number
  middle: number
  high: number
  worst: number
  used: number
  goodwill: number
  most: number
}>()
const WIDTH = 190
const x = (hours: number) => (WIDTH - 2) * Math.min(hours / Math.max(props.most, 0.25), 1) + 1
const end = computed(() => Math.max(x(props.worst), 4))
const ticks = computed(() => {
  const step = props.most > 12 ? 4 : props.most > 5 ? 2 : 1
  return Array.from({ length: Math.floor(props.worst / step) }, (_, at) => x((at + 1) * step))
})
</script>

<template>
  <svg :width="WIDTH" height="20" aria-hidden="true" class="block">
    <rect x="1" y="2" :width="end" height="16" rx="2" class="fill-sheet stroke-ink" stroke-width="1.4" />
    <rect :x="x(low)" y="3" :width="Math.max(x(high) - x(low), 1)" height="14" class="fill-iron" />
    <line v-for="tick in ticks" :key="tick" :x1="tick" :x2="tick" y1="2" y2="7" class="stroke-ink-soft" />
    <rect x="2" y="9" :width="Math.max(x(used) - 2, 0)" height="8" class="fill-part" />
    <rect
      v-if="goodwill > 0"
      :x="x(used)"
      y="9"
      :width="x(used + goodwill) - x(used)"
      height="8"
      class="fill-unsure"
    />
    <line :x1="x(middle)" :x2="x(middle)" y1="1" y2="19" class="stroke-ink" stroke-width="2" />
  </svg>
</template>
