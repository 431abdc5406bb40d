<script setup lang="ts">
import { computed } from 'vue'

import type { HoleOnLadder } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** What one bore needs, on the drawn centre and on the best one, with its ±; dashed where it is only bounded. */
const props = defineProps<{
  hole: HoleOnLadder
  column: number
  base: number
  height: (oversize: number) => number
}>()
const small = (metres: number) => lengthText(metres, unit.value)
const bars = computed(() =>
  [
    { name: 'drawn', needed: props.hole.drawn },
    { name: 'best', needed: props.hole.best },
  ].flatMap(({ name, needed }, at) => (needed ? [{ name, needed, at }] : [])),
)
</script>

<template>
  <g>
    <g v-for="bar in bars" :key="bar.name">
      <rect
        :x="bar.at === 0 ? -column * 0.3 : column * 0.08"
        :y="height(bar.needed.most_m)"
        :width="column * 0.22"
        :height="base - height(bar.needed.most_m)"
        :class="bar.at === 0 ? 'fill-part-wash' : 'fill-sheet'"
        class="stroke-part"
        stroke-width="1.8"
        :stroke-dasharray="bar.needed.is_placed ? undefined : '4 3'"
      />
      <path
        v-if="!bar.needed.is_placed"
        :d="`M${bar.at === 0 ? -column * 0.3 : column * 0.08} ${height(bar.needed.least_m)}h${column * 0.22}`"
        class="stroke-part"
        stroke-width="1.8"
      />
      <path
        :transform="`translate(${bar.at === 0 ? -column * 0.19 : column * 0.19} 0)`"
        :d="`M-7 ${height(bar.needed.most_m + bar.needed.expanded_m)}h14M-7 ${height(bar.needed.most_m - bar.needed.expanded_m)}h14M0 ${height(bar.needed.most_m + bar.needed.expanded_m)}V${height(bar.needed.most_m - bar.needed.expanded_m)}`"
        class="stroke-ink"
        stroke-width="1.6"
      />
      <text
        :x="bar.at === 0 ? -column * 0.19 : column * 0.19"
        :y="height(bar.needed.most_m + bar.needed.expanded_m) - 8"
        text-anchor="middle"
        font-size="17"
        font-weight="700"
        paint-order="stroke"
        stroke-width="4"
        class="num fill-ink stroke-paper"
      >
        {{ small(bar.needed.most_m) }}
      </text>
      <text
        :x="bar.at === 0 ? -column * 0.19 : column * 0.19"
        :y="base + 18"
        text-anchor="middle"
        font-size="14"
        class="fill-ink-soft"
      >
        {{ bar.name }}
      </text>
    </g>
  </g>
</template>
