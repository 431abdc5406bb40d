<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, PlaceReadView, SurveyView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { markTone } from '@/shared/format/tones'

import { placeKey } from '@/shared/state/places'

/** The deck from above with its grid: what was read stands at its point, copper is read now. */
const props = defineProps<{ survey: SurveyView; block: BlockView; at: string | null }>()
const emit = defineEmits<{ choose: [key: string] }>()

const along = computed(() => props.survey.pattern.along_m)
const across = computed(() => props.survey.pattern.across_m)
const span = (values: number[]) => (values.length ? Math.max(...values) - Math.min(...values) : 0)
const WIDTH = 620
const HEIGHT = 330
const EDGE = 66
const scale = computed(() => {
  const wide = span(along.value) || 1
  const high = span(across.value) || 1
  return { x: (WIDTH - 2 * EDGE) / wide, y: (HEIGHT - 2 * EDGE) / high }
})
const x = (value: number) => EDGE + (value - Math.min(...along.value)) * scale.value.x
const y = (value: number) => EDGE + (value - Math.min(...across.value)) * scale.value.y
const point = (row: PlaceReadView) => ({
  x: x(Number(row.place.along_um ?? 0) / 1e6),
  y: y(Number(row.place.across_um ?? 0) / 1e6),
})
/** Bores of this deck, number one at the left, half a pitch from the first points. */
const bores = computed(() => {
  const { banks, bore_pitch_m: pitch, bore_m: bore } = props.block.card
  const bank = banks[props.survey.part.key === 'deck-B' ? 1 : 0] ?? []
  const middle = (Math.min(...across.value) + Math.max(...across.value)) / 2
  return bank.map((number, index) => ({
    number,
    x: x(Math.min(...along.value) + pitch / 2 + index * pitch),
    y: y(middle),
    rx: (bore / 2) * scale.value.x,
    ry: Math.min((bore / 2) * scale.value.y, HEIGHT / 2 - EDGE - 16),
  }))
})
/** What stands at a point: its value, that it cannot be read, or that nobody read it. */
function textOf(row: PlaceReadView): string {
  if (row.value_m !== null) return lengthText(row.value_m, unit.value, { signed: true })
  return row.unreadable ? '✕' : '·'
}
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="group"
    aria-label="The deck and its grid"
    class="h-auto w-full"
  >
    <rect x="14" y="14" :width="WIDTH - 28" :height="HEIGHT - 28" rx="10" class="fill-iron stroke-ink-soft" />
    <g v-for="bore in bores" :key="bore.number">
      <ellipse :cx="bore.x" :cy="bore.y" :rx="bore.rx" :ry="bore.ry" class="fill-paper stroke-ink-soft" />
      <text
        :x="bore.x"
        :y="bore.y + 8"
        text-anchor="middle"
        font-size="24"
        font-weight="700"
        class="fill-ink-soft"
      >
        {{ bore.number }}
      </text>
    </g>
    <text x="24" :y="HEIGHT - 22" font-size="13" class="fill-ink-soft">front</text>
    <g
      v-for="row in survey.places"
      :key="placeKey(row.place)"
      class="cursor-pointer"
      role="button"
      tabindex="0"
      :aria-label="`${row.name}: ${textOf(row)}`"
      :aria-pressed="placeKey(row.place) === at"
      @click="emit('choose', placeKey(row.place))"
      @keydown.enter.prevent="emit('choose', placeKey(row.place))"
    >
      <circle
        :cx="point(row).x"
        :cy="point(row).y"
        r="26"
        :class="placeKey(row.place) === at ? 'fill-act-wash stroke-act' : 'fill-sheet stroke-rule'"
        :stroke-width="placeKey(row.place) === at ? 4 : 1.5"
      />
      <text
        :x="point(row).x"
        :y="point(row).y + 6"
        text-anchor="middle"
        font-size="17"
        font-weight="700"
        class="num"
        :class="row.value_m === null ? 'text-ink-soft' : markTone(row)"
        fill="currentColor"
      >
        {{ textOf(row) }}
      </text>
    </g>
  </svg>
</template>
