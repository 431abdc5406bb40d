<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, PlaceReadView, SurveyView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'
import { markTone } from '@/shared/format/tones'

import { placeKey } from '@/shared/state/places'

/** The deck from above with its grid: what was read stands at its point, copper is read now. */
const props = defineProps<{ survey: SurveyView; block: BlockView; at: string | null }>()
const emit = defineEmits<{ choose: [key: string] }>()

const along = computed(() => props.survey.pattern.along_m)
const across = computed(() => props.survey.pattern.across_m)
const span = (values: number[]) => (values.length ? Math.max(...values) - Math.min(...values) : 0)
const phone = usePhone()
/** On a phone the deck is turned: its front is at the top, and it runs down the screen. */
const drawn = computed(() =>
  phone.value
    ? { width: 340, height: 84 + along.value.length * 62, edge: 62 }
    : { width: 620, height: 330, edge: 66 },
)
const scale = computed(() => {
  const { width, height, edge } = drawn.value
  const [wide, high] = phone.value ? [height, width] : [width, height]
  return {
    along: (wide - 2 * edge) / (span(along.value) || 1),
    across: (high - 2 * edge) / (span(across.value) || 1),
  }
})
function spotOf(alongHere: number, acrossHere: number): { x: number; y: number } {
  const { width, edge } = drawn.value
  const down = edge + (alongHere - Math.min(...along.value)) * scale.value.along
  const over = edge + (acrossHere - Math.min(...across.value)) * scale.value.across
  return phone.value ? { x: width - over, y: down } : { x: down, y: over }
}
const point = (row: PlaceReadView) =>
  spotOf(Number(row.place.along_um ?? 0) / 1e6, Number(row.place.across_um ?? 0) / 1e6)
/** Bores of this deck, number one at the left, half a pitch from the first points. */
const bores = computed(() => {
  const { banks, bore_pitch_m: pitch, bore_m: bore } = props.block.card
  const bank = banks[props.survey.part.key === 'deck-B' ? 1 : 0] ?? []
  const middle = (Math.min(...across.value) + Math.max(...across.value)) / 2
  const long = (bore / 2) * scale.value.along
  const room = (phone.value ? drawn.value.width : drawn.value.height) / 2 - drawn.value.edge - 16
  const wide = Math.min((bore / 2) * scale.value.across, room)
  return bank.map((number, index) => ({
    number,
    ...spotOf(Math.min(...along.value) + pitch / 2 + index * pitch, middle),
    rx: phone.value ? wide : long,
    ry: phone.value ? long : wide,
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
    :viewBox="`0 0 ${drawn.width} ${drawn.height}`"
    role="group"
    aria-label="The deck and its grid"
    class="h-auto w-full"
  >
    <rect
      x="14"
      y="14"
      :width="drawn.width - 28"
      :height="drawn.height - 28"
      rx="10"
      class="fill-iron stroke-ink-soft"
    />
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
    <text x="24" :y="phone ? 32 : drawn.height - 22" font-size="13" class="fill-ink-soft">front</text>
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
