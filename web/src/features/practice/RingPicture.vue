<script setup lang="ts">
import { computed } from 'vue'

import { unit } from '@/shared/state/preferences'

import LineKeys from './LineKeys.vue'
import { DASHES, type PictureOf, FILLS, ringPath, smallWords, STROKES } from './pictures'

/** A bore from above, its deviations drawn many times too large; every curve and mark by its name. */
const props = defineProps<{ ring: PictureOf<'ring'> }>()
const MIDDLE = 150
const reach = computed(() =>
  Math.max(
    2e-6,
    ...props.ring.curves.flatMap((curve) => curve.values_m.map(Math.abs)),
    ...props.ring.marks.map((mark) => Math.abs(mark.value_m)),
  ),
)
const scale = computed(() => 56 / reach.value)
const curves = computed(() =>
  props.ring.curves.map((curve) => ({ ...curve, d: ringPath(curve.values_m, MIDDLE, scale.value) })),
)
const marks = computed(() =>
  props.ring.marks.map((mark) => {
    const angle = (mark.axis_deg * Math.PI) / 180
    const r = MIDDLE + mark.value_m * scale.value
    const [x, y] = [Math.cos(angle), -Math.sin(angle)]
    return { ...mark, ends: [r, -r].map((one) => ({ x: x * one, y: y * one })), tx: x * 92, ty: y * 92 }
  }),
)
</script>

<template>
  <figure>
    <figcaption class="flex flex-wrap justify-between gap-x-3 font-bold">
      {{ ring.title }}<span class="font-normal text-ink-soft">{{ ring.note }}</span>
    </figcaption>
    <svg
      v-legible
      viewBox="-225 -222 450 444"
      class="mx-auto block max-h-[46vh] w-full max-w-[26rem]"
      role="img"
      :aria-label="`${ring.title}. ${ring.note}. ${marks.map((mark) => `${mark.name} ${smallWords(mark.value_m, unit)} ${unit}`).join(', ')}`"
    >
      <circle :r="MIDDLE + 56" class="fill-track" />
      <circle :r="MIDDLE - 56" class="fill-sheet" />
      <path
        v-for="curve in curves"
        :key="curve.name"
        :d="curve.d"
        fill="none"
        :class="STROKES[curve.tone]"
        :stroke-width="curve.tone === 'truth' ? 3.4 : 2.2"
        :stroke-dasharray="DASHES[curve.tone]"
      />
      <g v-for="(mark, index) in marks" :key="index">
        <path
          :d="`M${mark.ends[0]?.x} ${mark.ends[0]?.y}L${mark.ends[1]?.x} ${mark.ends[1]?.y}`"
          :class="STROKES[mark.tone]"
          stroke-width="0.9"
        />
        <template v-for="(end, side) in mark.ends" :key="side">
          <path
            v-if="mark.tone === 'wrong'"
            :d="`M${end.x - 8} ${end.y}l8 -8l8 8l-8 8z`"
            :class="FILLS[mark.tone]"
          />
          <circle v-else :cx="end.x" :cy="end.y" r="6" :class="FILLS[mark.tone]" />
        </template>
        <text
          :x="mark.tx"
          :y="mark.ty + 5"
          text-anchor="middle"
          class="fill-ink-soft stroke-sheet"
          stroke-width="4"
          paint-order="stroke"
          font-size="18"
        >
          {{ mark.name }}
        </text>
      </g>
      <text y="-4" text-anchor="middle" class="fill-ink" font-size="20" font-weight="700">
        {{ smallWords(reach, unit) }}
      </text>
      <text y="17" text-anchor="middle" class="fill-ink-soft" font-size="18">{{ unit }} to the rim</text>
    </svg>
    <LineKeys :lines="curves" />
  </figure>
</template>
