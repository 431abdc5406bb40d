<script setup lang="ts">
import { computed } from 'vue'

import type { RingMark } from './rings'
import { GREATEST_RADIUS, LEAST_RADIUS, placeOf } from './track'

/** Readings at their clock positions between the least circle (dashed) and the greatest circle (solid). */
const props = defineProps<{
  number: number
  least: number | null
  greatest: number | null
  marks: readonly RingMark[]
  expected?: number | null
  chosenHour?: number | null
  /** Its number is written over it, in the size of the page. */
  unnumbered?: boolean
}>()

const track = computed(() => ({ least: props.least, greatest: props.greatest }))
const placed = computed(() =>
  props.marks.map((mark) => ({ ...mark, ...placeOf(mark.hour, mark.value, track.value) })),
)
const outline = computed(() => {
  const settled = placed.value.filter((mark) => !mark.preview && mark.state !== 'read again')
  if (settled.length < 3) return ''
  const order = [...settled].sort((a, b) => (a.hour % 12) - (b.hour % 12))
  return order.map((mark) => `${mark.x.toFixed(2)},${mark.y.toFixed(2)}`).join(' ')
})
const worst = computed(() => props.marks.some((mark) => mark.state === 'out'))
const expectedRadius = computed(() =>
  typeof props.expected === 'number' ? placeOf(12, props.expected, track.value).radius : null,
)
const hasTrack = computed(() => props.least !== null || props.greatest !== null)
const hand = computed(() => {
  if (typeof props.chosenHour !== 'number') return null
  const turn = (props.chosenHour / 12) * 2 * Math.PI
  return { x: 57 * Math.sin(turn), y: -57 * Math.cos(turn), turn: props.chosenHour * 30 }
})
</script>

<template>
  <g>
    <circle :r="hasTrack ? GREATEST_RADIUS : 40" class="fill-track" />
    <circle :r="LEAST_RADIUS" class="fill-sheet" />
    <circle v-if="greatest !== null" :r="GREATEST_RADIUS" class="fill-none stroke-ink" stroke-width="1.1" />
    <circle
      v-if="least !== null"
      :r="LEAST_RADIUS"
      class="fill-none stroke-ink"
      stroke-width="1.1"
      stroke-dasharray="3.2 2.4"
    />
    <circle
      v-if="expectedRadius !== null"
      :r="expectedRadius"
      class="fill-none stroke-part"
      stroke-width="1.2"
      stroke-dasharray="1 4"
      stroke-linecap="round"
    />
    <polygon
      v-if="outline"
      :points="outline"
      class="fill-none"
      :class="worst ? 'stroke-out' : 'stroke-part'"
      stroke-width="1.6"
    />
    <path
      v-if="hand"
      d="M0 0 L-4.5 -7 L4.5 -7 Z"
      class="fill-act"
      :transform="`rotate(${hand.turn}) translate(0 -52)`"
    />
    <text v-if="!unnumbered" y="7" text-anchor="middle" class="fill-ink font-bold" font-size="20">{{
      number
    }}</text>
    <g
      v-for="mark in placed"
      :key="`${mark.hour}-${mark.preview}`"
      :data-mark="mark.preview ? undefined : mark.hour"
      :transform="`translate(${mark.x} ${mark.y})`"
    >
      <circle v-if="mark.preview" r="5.5" class="fill-none stroke-act" stroke-width="2.5" data-preview />
      <path v-else-if="mark.state === 'out'" d="M0-6 6 0 0 6-6 0z" class="fill-out" />
      <circle
        v-else-if="mark.state === 'cannot tell'"
        r="4.4"
        class="fill-sheet stroke-unsure"
        stroke-width="2.2"
      />
      <circle
        v-else-if="mark.state === 'read again'"
        r="4"
        class="fill-sheet stroke-ink-soft"
        stroke-width="1.6"
        data-past
      />
      <circle v-else r="4.6" class="fill-part" />
      <path
        v-if="mark.beyond"
        d="M-4 9 0 3 4 9z"
        class="fill-out"
        :transform="`rotate(${mark.hour * 30 + (mark.beyond === 'inside' ? 180 : 0)}) translate(0 -14)`"
      />
    </g>
  </g>
</template>
