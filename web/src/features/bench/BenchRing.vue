<script setup lang="ts">
import { computed } from 'vue'

import type { HoleView } from '@/api/generated'
import LimitRing from '@/shared/charts/LimitRing.vue'
import { type Preview, ringOf } from '@/shared/charts/rings'
import type { ClockLens } from '@/shared/subjects'

/** The hole at hand, as large as the screen allows, with the clock hand where the tip belongs. */
const props = defineProps<{
  hole: HoleView | null
  lens: ClockLens
  hour: number | null
  preview: Preview | null
}>()
const ring = computed(() => (props.hole ? ringOf(props.hole, props.lens, props.preview) : null))
const hand = computed(() => (props.hour === null ? '' : `rotate(${props.hour * 30})`))
const hours = [12, 3, 6, 9]
</script>

<template>
  <svg
    v-legible
    viewBox="-78 -78 156 156"
    role="img"
    :aria-label="hole ? `Hole ${hole.number}, tip at ${hour} h` : 'no hole'"
  >
    <circle r="66" class="fill-iron" />
    <text
      v-for="mark in hours"
      :key="mark"
      :x="71 * Math.sin((mark * Math.PI) / 6)"
      :y="-71 * Math.cos((mark * Math.PI) / 6) + 3"
      text-anchor="middle"
      font-size="8"
      class="fill-ink-soft"
    >
      {{ mark }}
    </text>
    <LimitRing
      v-if="hole && ring"
      :number="hole.number"
      :least="ring.least"
      :greatest="ring.greatest"
      :marks="ring.marks"
      :expected="ring.expected"
    />
    <path
      v-if="hand"
      d="M-2.6 -16 L0 -65 L2.6 -16 Z"
      class="fill-act"
      :transform="hand"
      opacity="0.85"
      data-hand
    />
  </svg>
</template>
