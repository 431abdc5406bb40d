<script setup lang="ts">
import { computed } from 'vue'

import type { RunView } from '@/api/generated'

import { onDial, stopsOf } from './dial'

/** Where the passes stopped, and where this one stops: never at the same place. */
const props = defineProps<{ run: RunView }>()
const stops = computed(() => stopsOf(props.run.passes.slice(-8), 112))
const hand = computed(() => {
  const hour = props.run.next_stop_hour
  const [tip, left, right] = [onDial(hour, 112), onDial(hour - 1.9, 26), onDial(hour + 1.9, 26)]
  return `M${tip.x} ${tip.y}L${left.x} ${left.y}L${right.x} ${right.y}z`
})
</script>

<template>
  <svg v-legible viewBox="0 0 300 300" role="img" :aria-label="`Stop this pass at ${run.next_stop_hour} h`">
    <circle cx="150" cy="150" r="148" class="fill-iron" />
    <circle cx="150" cy="150" r="122" class="fill-sheet stroke-ink" stroke-width="2" />
    <circle cx="150" cy="150" r="86" class="fill-sheet stroke-ink" stroke-width="1" />
    <text
      v-for="hour in 12"
      :key="hour"
      :x="onDial(hour, 135).x"
      :y="onDial(hour, 135).y + 6"
      text-anchor="middle"
      :font-size="hour % 3 === 0 ? 18 : 14"
      :font-weight="hour % 3 === 0 ? 700 : 400"
      class="fill-ink"
    >
      {{ hour }}
    </text>
    <path :d="hand" class="fill-act" />
    <g v-for="one in stops" :key="one.number" :class="one.number === run.count ? '' : 'opacity-80'">
      <circle :cx="one.x" :cy="one.y" r="13" class="fill-part-wash stroke-part" stroke-width="1.8" />
      <text :x="one.x" :y="one.y + 5" text-anchor="middle" font-size="14" font-weight="700" class="fill-part">
        {{ one.number }}
      </text>
    </g>
    <text x="150" y="168" text-anchor="middle" font-size="52" font-weight="700" class="fill-ink">
      {{ run.hole }}
    </text>
  </svg>
</template>
