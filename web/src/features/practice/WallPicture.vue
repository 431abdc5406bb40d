<script setup lang="ts">
import { computed } from 'vue'

import type { PictureOf } from './pictures'

/** The wall of a bore unrolled: stripes that the stones have not met yet, fading. */
const props = defineProps<{ wall: PictureOf<'wall'> }>()
const LEVELS = ['top', 'middle', 'bottom']
const cells = computed(() =>
  props.wall.stripes.flatMap((row, level) =>
    row.map((left, column) => ({
      left,
      x: 62 + (column * 388) / row.length,
      y: 8 + level * 84,
      width: 388 / row.length,
    })),
  ),
)
</script>

<template>
  <figure>
    <figcaption class="flex flex-wrap justify-between gap-x-3 font-bold">
      {{ wall.title }}<span class="font-normal text-ink-soft">{{ wall.note }}</span>
    </figcaption>
    <svg
      v-legible
      viewBox="0 0 460 284"
      class="block w-full"
      role="img"
      :aria-label="`${wall.title}: stripes left ${wall.stripes.map((row) => `${Math.round((100 * row.reduce((sum, one) => sum + one, 0)) / row.length)} %`).join(', ')}`"
    >
      <rect
        v-for="(cell, index) in cells"
        :key="index"
        :x="cell.x"
        :y="cell.y"
        :width="cell.width + 0.6"
        height="84"
        class="fill-ink"
        :fill-opacity="0.08 + 0.72 * cell.left"
      />
      <path d="M62 92H450M62 176H450" class="stroke-sheet" stroke-width="1.5" />
      <text
        v-for="(name, at) in LEVELS"
        :key="name"
        x="4"
        :y="54 + at * 84"
        class="fill-ink-soft"
        font-size="17"
      >
        {{ name }}
      </text>
      <text
        v-for="angle in [0, 90, 180, 270]"
        :key="angle"
        :x="64 + (angle / 360) * 388"
        y="277"
        class="fill-ink-soft font-mono"
        font-size="17"
      >
        {{ angle }}°
      </text>
    </svg>
    <dl class="mt-1 flex flex-wrap gap-x-6">
      <div class="flex gap-2">
        <dt class="text-ink-soft">wall</dt>
        <dd class="num">{{ wall.celsius.toFixed(0) }} °C</dd>
      </div>
      <div class="flex gap-2">
        <dt class="text-ink-soft">strokes</dt>
        <dd class="num">{{ wall.strokes }}</dd>
      </div>
      <div class="flex gap-2">
        <dt class="text-ink-soft">stones loaded</dt>
        <dd class="num">{{ (100 * wall.loaded).toFixed(0) }} %</dd>
      </div>
    </dl>
  </figure>
</template>
