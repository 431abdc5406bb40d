<script setup lang="ts">
import { computed } from 'vue'

import { FILLS, handAt, type DialShown, STROKES } from './pictures'

/** A dial with its divisions, as the hand sees it; numbers run both ways, or round and round with turns counted. */
const props = defineProps<{ dial: DialShown; value: number; words?: string }>()
const RIM = 236
const at = (degrees: number, r: number) => {
  const angle = (degrees * Math.PI) / 180
  return { x: 250 + r * Math.sin(angle), y: 250 - r * Math.cos(angle) }
}
const ticks = computed(() =>
  Array.from({ length: props.dial.per_turn }, (_, index) => {
    const degrees = (index * 360) / props.dial.per_turn
    const isNumber = index % props.dial.number_each === 0
    const isHalf = index % 5 === 0
    const from = at(degrees, RIM - (isNumber ? 26 : isHalf ? 18 : 11))
    const to = at(degrees, RIM - 3)
    return { d: `M${from.x} ${from.y}L${to.x} ${to.y}`, width: isNumber ? 2.4 : 1.1 }
  }),
)
const numbers = computed(() => {
  const dial = props.dial
  const many = Math.floor(dial.per_turn / dial.number_each)
  return Array.from({ length: many }, (_, index) => {
    const isBack = !dial.inner && index > many / 2
    const shown = (isBack ? many - index : index) * dial.number_step
    const degrees = (index * dial.number_each * 360) / dial.per_turn
    return { ...at(degrees, RIM - 46), words: String(shown), isBig: shown === 0 }
  })
})
const turns = computed(() => Math.trunc(props.value / props.dial.division_m / props.dial.per_turn))
const hand = computed(() => handAt(props.dial, props.value))
const small = computed(() => (props.value / props.dial.division_m / props.dial.per_turn) * 36)
const marks = computed(() =>
  props.dial.marks.map((mark, index) => {
    const degrees = handAt(props.dial, mark.value_m)
    return {
      ...mark,
      ...at(degrees, RIM + 2),
      in: at(degrees, RIM - 20),
      label: at(degrees, RIM - 74 - 30 * (index % 3)),
    }
  }),
)
</script>

<template>
  <svg
    v-legible
    viewBox="0 0 500 500"
    class="block w-full max-w-[31rem]"
    role="img"
    :aria-label="`Dial in ${dial.unit}, ${dial.title}${words ? `: ${words}` : ''}`"
  >
    <circle cx="250" cy="250" r="247" class="fill-iron stroke-ink" stroke-width="2" />
    <circle cx="250" cy="250" :r="RIM" class="fill-sheet stroke-ink" stroke-width="2" />
    <path
      v-for="(tick, index) in ticks"
      :key="index"
      :d="tick.d"
      class="stroke-ink"
      :stroke-width="tick.width"
    />
    <text
      v-for="(one, index) in numbers"
      :key="index"
      :x="one.x"
      :y="one.y + 7"
      text-anchor="middle"
      class="fill-ink font-mono font-bold"
      :font-size="one.isBig ? 28 : 21"
    >
      {{ one.words }}
    </text>
    <text v-if="!dial.inner" x="150" y="176" text-anchor="middle" class="fill-ink-soft" font-size="30">
      −
    </text>
    <text v-if="!dial.inner" x="350" y="176" text-anchor="middle" class="fill-ink-soft" font-size="30">
      +
    </text>
    <g v-if="dial.inner">
      <circle cx="250" cy="168" r="42" class="fill-paper stroke-ink-soft" stroke-width="1.5" />
      <text
        v-for="index in [1, 3, 5, 7, 9]"
        :key="index"
        :x="250 + 30 * Math.sin(((index - 1) * Math.PI) / 5)"
        :y="174 - 30 * Math.cos(((index - 1) * Math.PI) / 5)"
        text-anchor="middle"
        class="fill-ink-soft"
        font-size="21"
      >
        {{ index - 1 }}
      </text>
      <path d="M250 176V142" class="stroke-ink" stroke-width="3" :transform="`rotate(${small} 250 168)`" />
    </g>
    <g v-for="mark in marks" :key="mark.name + mark.value_m">
      <path
        :d="`M${mark.x} ${mark.y}L${mark.in.x} ${mark.in.y}`"
        :class="STROKES[mark.tone]"
        stroke-width="7"
      />
      <text
        :x="mark.label.x"
        :y="mark.label.y + 6"
        text-anchor="middle"
        :class="FILLS[mark.tone]"
        font-size="21"
        font-weight="700"
      >
        {{ mark.name }}
      </text>
    </g>
    <g :transform="`rotate(${hand} 250 250)`">
      <path d="M246 290L247.5 42L250 30L252.5 42L254 290Z" class="fill-ink" />
    </g>
    <circle cx="250" cy="250" r="13" class="fill-ink" />
    <circle cx="250" cy="250" r="5" class="fill-sheet" />
    <text x="250" y="330" text-anchor="middle" class="fill-ink" font-size="21" font-weight="700">
      {{ dial.title }}
    </text>
    <text x="250" y="358" text-anchor="middle" class="fill-ink-soft" font-size="21">{{ dial.unit }}</text>
    <text
      v-if="!dial.inner && turns"
      x="250"
      y="384"
      text-anchor="middle"
      class="fill-ink-soft"
      font-size="21"
    >
      past a whole turn, {{ turns > 0 ? '+' : '−' }}{{ Math.abs(turns) }}
    </text>
    <text v-if="words" x="250" y="408" text-anchor="middle" class="fill-ink-soft" font-size="21">
      {{ words }}
    </text>
  </svg>
</template>
