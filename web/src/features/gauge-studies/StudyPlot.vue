<script setup lang="ts">
import { computed } from 'vue'

import type { StudyResult, StudyView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Every reading, part by part and person by person: parts apart, trials together is a good gauge. */
const props = defineProps<{ study: StudyView; result: StudyResult }>()
const WIDTH = 660
const HEIGHT = 430
const LEFT = 62
const TOP = 34
const BOTTOM = 40
const STROKES = ['stroke-part', 'stroke-act', 'stroke-in', 'stroke-unsure', 'stroke-out', 'stroke-ink']

const all = computed(() => props.result.readings_m.flat(2))
const low = computed(() => Math.min(...all.value))
const span = computed(() => Math.max(1e-7, Math.max(...all.value) - low.value))
const y = (value: number) => TOP + (1 - (value - low.value) / span.value) * (HEIGHT - TOP - BOTTOM)
const cell = computed(() => (WIDTH - LEFT - 10) / props.study.parts)
const x = (part: number, place: number) =>
  LEFT +
  cell.value * (part + 0.5) +
  (place - (props.study.people.length - 1) / 2) * Math.min(22, cell.value / (props.study.people.length + 1))
const ticks = computed(() => [0, 0.5, 1].map((share) => low.value + share * span.value))
/** The mean of a person over the parts, to see whether the lines run side by side. */
const lines = computed(() =>
  props.study.people.map((_, place) =>
    props.result.readings_m
      .map((people, part) => {
        const trials = people[place] ?? []
        return `${x(part, place)},${y(trials.reduce((sum, one) => sum + one, 0) / Math.max(1, trials.length))}`
      })
      .join(' '),
  ),
)
const letter = (part: number) => String.fromCharCode(65 + part)
</script>

<template>
  <figure>
    <svg
      v-legible
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      role="img"
      aria-label="Readings by part and person"
      class="h-auto w-full"
    >
      <g v-for="tick in ticks" :key="tick">
        <path :d="`M${LEFT} ${y(tick)}H${WIDTH}`" class="stroke-rule" />
        <text :x="LEFT - 8" :y="y(tick) + 5" text-anchor="end" font-size="14" class="num fill-ink-soft">
          {{ lengthText(tick, unit, { digits: 1 }) }}
        </text>
      </g>
      <text x="4" y="16" font-size="14" class="fill-ink-soft">{{ unit }}</text>
      <g v-for="(_, part) in result.readings_m" :key="part">
        <path
          :d="`M${LEFT + cell * part} ${TOP}V${HEIGHT - BOTTOM}`"
          class="stroke-rule"
          stroke-dasharray="2 4"
        />
        <text
          :x="LEFT + cell * (part + 0.5)"
          :y="HEIGHT - 14"
          text-anchor="middle"
          font-size="16"
          font-weight="700"
          class="fill-ink"
        >
          {{ letter(part) }}
        </text>
      </g>
      <polyline
        v-for="(line, place) in lines"
        :key="place"
        :points="line"
        fill="none"
        :class="STROKES[place]"
        stroke-width="1.5"
        opacity="0.6"
      />
      <template v-for="(people, part) in result.readings_m" :key="part">
        <g
          v-for="(trials, place) in people"
          :key="place"
          :class="STROKES[place]"
          fill="none"
          stroke-width="2"
        >
          <path
            v-if="trials.length > 1"
            :d="`M${x(part, place)} ${y(Math.max(...trials))}V${y(Math.min(...trials))}`"
          />
          <circle
            v-for="(value, trial) in trials"
            :key="trial"
            :cx="x(part, place)"
            :cy="y(value)"
            r="4"
            class="fill-sheet"
          />
        </g>
      </template>
    </svg>
    <figcaption class="flex flex-wrap gap-5">
      <span v-for="(one, place) in study.people" :key="one.person_id" class="flex items-center gap-2">
        <svg width="26" height="12" aria-hidden="true">
          <path d="M0 6H26" :class="STROKES[place]" stroke-width="3" /></svg
        >{{ one.name }}
      </span>
      <span class="text-ink-soft">parts by letter; a stroke joins the trials of one person</span>
    </figcaption>
  </figure>
</template>
