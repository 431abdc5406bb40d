<script setup lang="ts">
import { computed } from 'vue'

import type { FitView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { depthOf, yAt } from './fit'

/** The levels by name and depth, at the left of what is drawn down the depth; they end at ``x``. */
const props = defineProps<{ fit: FitView; x: number }>()
const whole = computed(() => depthOf(props.fit))
</script>

<template>
  <g text-anchor="end">
    <template v-for="level in fit.levels" :key="level.name">
      <text :x="x" :y="yAt(level.depth_m, whole) + 1" font-size="14" class="fill-ink">{{ level.name }}</text>
      <text :x="x" :y="yAt(level.depth_m, whole) + 17" font-size="13" class="num fill-ink-soft">
        {{ lengthText(level.depth_m, SIZE_WITH[unit], { digits: unit === 'thou' ? 2 : 0 }) }}
        {{ SIZE_WITH[unit] }}
      </text>
    </template>
  </g>
</template>
