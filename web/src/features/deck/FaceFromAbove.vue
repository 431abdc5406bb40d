<script setup lang="ts">
import { computed } from 'vue'

import type { DeckFaceView, DeckOptionView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import { facePicture, stripsOf } from './picture'

/** One face from above: the darker, the more comes off; bare where the cutter does not reach; rings are sealing lands. */
const props = defineProps<{ face: DeckFaceView; option: DeckOptionView }>()
const depth = computed(() => props.option.faces.find((one) => one.part === props.face.part)?.depth_m ?? 0)
const picture = computed(() => facePicture(props.face, depth.value))
const phone = usePhone()
const strips = computed(() =>
  picture.value ? stripsOf(props.face.bores, picture.value, phone.value ? 3 : Infinity) : [],
)
const most = computed(() => Math.max(1e-6, ...(picture.value?.cells.map((cell) => cell.off) ?? [])))
const after = (number: number) => props.option.holes.find((one) => one.hole === number) ?? null
const small = (metres: number, signed = false) => lengthText(metres, unit.value, { signed })
const TONE: Record<string, string> = { in: 'fill-in', out: 'fill-out', 'cannot tell': 'fill-unsure' }
const labelOf = (numbers: number[]) =>
  numbers.map((number) => `hole ${number}: ${small(Math.max(0, after(number)?.off_m ?? 0))} off`).join(', ')
</script>

<template>
  <figure class="relative overflow-x-auto">
    <template v-if="picture">
      <svg
        v-for="strip in strips"
        :key="strip.from"
        v-legible
        :viewBox="`${strip.from} 0 ${strip.width} ${picture.height}`"
        class="w-full sm:min-w-[44rem]"
        role="img"
        :aria-label="`The face: ${labelOf(strip.numbers)}`"
      >
        <rect
          x="2"
          y="2"
          :width="picture.width - 4"
          :height="picture.height - 4"
          rx="10"
          class="fill-iron stroke-ink-soft"
          stroke-width="2"
        />
        <rect
          v-for="(cell, at) in picture.cells.filter((one) => one.off > 0)"
          :key="at"
          :x="cell.x"
          :y="cell.y"
          :width="cell.size"
          :height="cell.size"
          class="fill-act"
          shape-rendering="crispEdges"
          :opacity="0.1 + 0.6 * (cell.off / most)"
        />
        <g v-for="bore in face.bores" :key="bore.number">
          <circle
            :cx="picture.x(bore.along_m)"
            :cy="picture.y(bore.across_m)"
            :r="(bore.radius_m + face.land_m) * picture.scale"
            class="fill-none stroke-ink"
            stroke-width="1.5"
            stroke-dasharray="6 4"
          />
          <circle
            :cx="picture.x(bore.along_m)"
            :cy="picture.y(bore.across_m)"
            :r="bore.radius_m * picture.scale"
            class="fill-paper stroke-ink"
            stroke-width="2"
          />
          <text
            :x="picture.x(bore.along_m)"
            :y="picture.y(bore.across_m) - 10 * strip.times"
            text-anchor="middle"
            :font-size="34 * strip.times"
            font-weight="700"
            class="fill-ink"
          >
            {{ bore.number }}
          </text>
          <text
            :x="picture.x(bore.along_m)"
            :y="picture.y(bore.across_m) + 18 * strip.times"
            text-anchor="middle"
            :font-size="20 * strip.times"
            class="fill-act font-mono"
          >
            −{{ small(Math.max(0, after(bore.number)?.off_m ?? 0)) }}
          </text>
          <text
            v-if="after(bore.number)?.lowest"
            :x="picture.x(bore.along_m)"
            :y="picture.y(bore.across_m) + 44 * strip.times"
            text-anchor="middle"
            :font-size="20 * strip.times"
            font-weight="700"
            class="font-mono"
            :class="TONE[after(bore.number)?.state ?? ''] ?? 'fill-ink'"
          >
            {{ small(after(bore.number)?.lowest?.stated.value_m ?? 0, true) }}
          </text>
        </g>
      </svg>
    </template>
    <p v-else class="text-unsure">
      {{ face.title[0]?.toUpperCase() }}{{ face.title.slice(1) }} was not read on a grid:
      <RouterLink
        class="link"
        :to="{ name: 'survey', params: { quantity: 'deck-flatness', part: face.part } }"
        >read it with an indicator</RouterLink
      >.
    </p>
    <figcaption v-if="picture" class="text-sm text-ink-soft">
      ◂ front · copper: what comes off round a bore<template v-if="option.holes.some((one) => one.lowest)"
        >, below it where its liner stands then</template
      >; bare iron is not reached
    </figcaption>
  </figure>
</template>
