<script setup lang="ts">
import { computed } from 'vue'

import { placeLabels } from './axis'
import type { LanePiece } from './lanes'

/** The lane of a machine or a person: what stands there, job by job. */
const props = defineProps<{
  name: string
  about: string
  pieces: readonly LanePiece[]
  y: number
  left: number
  right: number
}>()
const emit = defineEmits<{ choose: [job: string] }>()
const shortName = (job: string) => (job.length > 14 ? `${job.slice(0, 13)}…` : job)
const labels = computed(() =>
  placeLabels(
    props.pieces.map((one) => ({ text: `${shortName(one.job)}: ${one.what}`, x: one.x, tone: '' })),
    6.6,
    1,
  ),
)
</script>

<template>
  <g>
    <text x="0" :y="y + 30" class="fill-ink text-[15px] font-bold">{{ name }}</text>
    <text v-if="about" x="0" :y="y + 44" class="fill-ink-soft text-[13px]">{{ about }}</text>
    <line :x1="left" :x2="right" :y1="y + 34" :y2="y + 34" class="stroke-rule" />
    <g v-for="(one, at) in pieces" :key="at">
      <rect
        :x="one.x"
        :y="y + 22"
        :width="one.width"
        height="12"
        class="fill-ink"
        @click="emit('choose', one.id)"
      />
    </g>
    <text v-for="(one, at) in labels" :key="`l${at}`" :x="one.from" :y="y + 17" class="fill-ink text-[13px]">
      {{ one.text }}
    </text>
  </g>
</template>
