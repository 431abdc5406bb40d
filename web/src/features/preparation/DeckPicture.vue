<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, DeckMarkView, FindingView } from '@/api/generated'
import { usePhone } from '@/shared/state/useNarrow'

import { pictureOf, placeOf, type Spot, spotAt, stripsOf } from './picture'

/** The decks from above, to scale: the land that seals round every counterbore, and every mark where it lies. */
const props = defineProps<{
  block: BlockView
  land: number | null
  edgeRadius: number
  marks: DeckMarkView[]
  wear: FindingView[]
  chosen: Spot | null
  hole: number | null
}>()
const emit = defineEmits<{ point: [spot: Spot]; mark: [finding: FindingView] }>()

const picture = computed(() => pictureOf(props.block.card, props.edgeRadius))
const phone = usePhone()
const strips = computed(() => stripsOf(picture.value, phone.value ? 3 : Infinity))
const TONE: Record<DeckMarkView['verdict'], string> = {
  'may stay': 'fill-in stroke-in',
  'skim or repair': 'fill-out stroke-out',
  'too near to tell': 'fill-unsure stroke-unsure',
  'depth not read': 'fill-unsure stroke-unsure',
  'no land on the card': 'fill-unsure stroke-unsure',
  'a cut takes it': 'fill-part stroke-part',
}
const placed = computed(() =>
  props.marks.flatMap((mark) => {
    const { hole, hour, distance_m: distance, part, width_m: width } = mark.finding
    const at =
      hole === null || hour === null ? null : placeOf(picture.value, hole, hour, distance, part === 'ledge')
    return at
      ? [{ mark, hole, ...at, radius: Math.max(3.2, (width ?? 0) * 500), turned: (hour ?? 0) * 30 }]
      : []
  }),
)
const lines = computed(() =>
  props.wear.flatMap((one) => {
    if (one.hole === null || one.hour === null) return []
    const from = placeOf(picture.value, one.hole, one.hour, null, true)
    const to = one.until_hour === null ? from : placeOf(picture.value, one.hole, one.until_hour, null, true)
    const radius = (picture.value.bore + picture.value.edge) / 2
    const span = (((one.until_hour ?? one.hour) - one.hour + 12) % 12) * 30
    return from && to
      ? [
          {
            key: one.finding_id,
            hole: one.hole,
            one,
            from,
            d: `M${from.x} ${from.y}A${radius} ${radius} 0 ${span > 180 ? 1 : 0} 1 ${to.x} ${to.y}`,
          },
        ]
      : []
  }),
)
const pointed = computed(() => {
  const { chosen } = props
  return (
    chosen &&
    placeOf(picture.value, chosen.hole, chosen.hour, Math.max(0, chosen.distance), chosen.distance < 0)
  )
})
function point(event: MouseEvent): void {
  const svg = event.currentTarget as SVGSVGElement
  const matrix = svg.getScreenCTM()
  if (!matrix) return
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  const spot = spotAt(picture.value, at.x, at.y)
  if (spot) emit('point', spot)
}
</script>

<template>
  <div>
    <!-- What is pointed at can be typed beside it as well: clock and distance. -->
    <!-- eslint-disable vuejs-accessibility/click-events-have-key-events, vuejs-accessibility/no-static-element-interactions -->
    <svg
      v-for="strip in strips"
      :key="strip.x + strip.y"
      v-legible
      :viewBox="`${strip.x - 2} ${strip.y - 2} ${strip.width + 4} ${strip.height + 4}`"
      class="block w-full cursor-crosshair sm:max-h-[46vh]"
      preserveAspectRatio="xMinYMin meet"
      :aria-label="`The deck from above, to scale${strips.length > 1 ? `: holes ${strip.numbers.join(', ')}` : ''}`"
      @click="point"
    >
      <!-- eslint-enable -->
      <rect
        v-for="deck in picture.decks"
        :key="deck.name"
        :x="deck.x"
        :y="deck.y"
        :width="deck.width"
        :height="deck.height"
        rx="10"
        class="fill-iron stroke-ink-soft"
        stroke-width="1"
      />
      <text
        v-for="deck in picture.decks"
        :key="`name ${deck.name}`"
        :x="deck.x + 8"
        :y="deck.y + deck.height - 8"
        :font-size="15 * strip.times"
        class="fill-ink-soft"
      >
        front{{ deck.name ? ` · ${deck.name}` : '' }}
      </text>
      <g v-for="one in picture.holes.filter((hole) => strip.numbers.includes(hole.number))" :key="one.number">
        <circle
          v-if="land !== null"
          :cx="one.x"
          :cy="one.y"
          :r="picture.edge + land * 500"
          :stroke-width="land * 1000"
          class="fill-none stroke-act-wash"
        />
        <circle
          v-if="land !== null"
          :cx="one.x"
          :cy="one.y"
          :r="picture.edge + land * 1000"
          class="fill-none stroke-act"
          stroke-width="0.8"
          stroke-dasharray="4 3"
        />
        <circle
          :cx="one.x"
          :cy="one.y"
          :r="picture.edge"
          class="fill-sheet"
          :class="one.number === hole ? 'stroke-act' : 'stroke-part'"
          :stroke-width="one.number === hole ? 2.5 : 1"
        />
        <circle
          :cx="one.x"
          :cy="one.y"
          :r="picture.bore"
          class="fill-paper stroke-ink-soft"
          stroke-width="1"
        />
        <g aria-hidden="true" :font-size="13 * strip.times" class="fill-ink-soft" text-anchor="middle">
          <text :x="one.x" :y="one.y - picture.bore + 15">12</text>
          <text :x="one.x + picture.bore - 10" :y="one.y + 5">3</text>
          <text :x="one.x" :y="one.y + picture.bore - 6">6</text>
          <text :x="one.x - picture.bore + 10" :y="one.y + 5">9</text>
        </g>
        <text
          :x="one.x"
          :y="one.y + 14"
          text-anchor="middle"
          font-size="40"
          font-weight="700"
          class="fill-ink"
        >
          {{ one.number }}
        </text>
      </g>
      <path
        v-for="line in lines.filter((one) => strip.numbers.includes(one.hole))"
        :key="line.key"
        :d="line.d"
        class="fill-none stroke-unsure"
        stroke-width="5"
        stroke-linecap="round"
      />
      <g
        v-for="one in placed.filter((mark) => strip.numbers.includes(mark.hole ?? 0))"
        :key="one.mark.finding.finding_id"
        role="button"
        tabindex="0"
        class="cursor-pointer"
        :aria-label="`${one.mark.finding.word} at hole ${one.mark.finding.hole}: ${one.mark.verdict}`"
        @click.stop="emit('mark', one.mark.finding)"
        @keydown.enter.prevent="emit('mark', one.mark.finding)"
      >
        <circle :cx="one.x" :cy="one.y" r="11" class="fill-transparent" />
        <circle
          v-if="one.mark.finding.word === 'pit'"
          :cx="one.x"
          :cy="one.y"
          :r="one.radius"
          :class="TONE[one.mark.verdict]"
          stroke-width="1.5"
        />
        <path
          v-else
          :transform="`translate(${one.x} ${one.y}) rotate(${one.mark.finding.word === 'score' ? one.turned : one.turned + 90})`"
          :d="`M0 ${-one.radius * 2}V${one.radius * 2}`"
          :class="TONE[one.mark.verdict]"
          stroke-width="3.5"
          stroke-linecap="round"
        />
      </g>
      <g
        v-if="pointed && strip.numbers.includes(chosen?.hole ?? 0)"
        class="stroke-act"
        stroke-width="2"
        aria-hidden="true"
      >
        <path
          :d="`M${pointed.x - 9} ${pointed.y}H${pointed.x + 9}M${pointed.x} ${pointed.y - 9}V${pointed.y + 9}`"
        />
      </g>
    </svg>
  </div>
</template>
