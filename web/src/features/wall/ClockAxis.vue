<script setup lang="ts">
import type { Frame } from './unrolled'

/** Clock positions below a wall unrolled, from the front round to the front. */
defineProps<{ frame: Frame }>()
const HOURS = [9, 12, 3, 6, 9]
const ENDS = ['front', '', 'rear', '', 'front']
</script>

<template>
  <g>
    <text
      v-for="(hour, at) in HOURS"
      :key="at"
      :x="frame.left + (at * frame.width) / 4"
      :y="frame.top + frame.height + 20"
      :text-anchor="at === 0 ? 'start' : at === 4 ? 'end' : 'middle'"
      font-size="15"
      font-weight="700"
      class="fill-ink"
    >
      {{ hour }} h<tspan font-weight="400" dx="8" class="fill-ink-soft">{{
        frame.width < 400 ? '' : ENDS[at]
      }}</tspan>
    </text>
  </g>
</template>
