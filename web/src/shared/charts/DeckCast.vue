<script setup lang="ts">
import type { DeckLayout } from './deck'

/** The casting seen on its deck: banks, bolts, and a bracket over each head. */
defineProps<{ layout: DeckLayout }>()
</script>

<template>
  <g>
    <g v-for="head in layout.heads" :key="`${head.name} ${head.y}`" class="fill-none stroke-ink-soft">
      <path :d="`M${head.from} ${head.y + 9}v-6H${head.to}v6`" />
      <text
        :x="(head.from + head.to) / 2"
        :y="head.y - 3"
        text-anchor="middle"
        class="fill-ink-soft stroke-none"
        font-size="14"
      >
        {{ head.name }}
      </text>
    </g>
    <g v-for="row in layout.rows" :key="row.y">
      <rect
        :x="row.x"
        :y="row.y"
        :width="row.width"
        :height="row.height"
        rx="14"
        class="fill-iron stroke-rule"
        stroke-width="1.5"
      />
      <text v-if="row.name" :x="row.x + 26" :y="row.y + 18" class="fill-ink-soft" font-size="14">{{
        row.name
      }}</text>
    </g>
    <circle
      v-for="(bolt, index) in layout.bolts"
      :key="index"
      :cx="bolt.x"
      :cy="bolt.y"
      r="5.5"
      class="fill-paper stroke-rule"
    />
  </g>
</template>
