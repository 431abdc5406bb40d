<script setup lang="ts">
import { computed } from 'vue'

import type { FitPlaceView, FitView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { FILL_TONE, STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'

import { bandOf, BOTTOM, depthOf, downDepth, lineOf, scaleOf, TOP, yAt } from './fit'

/** The press by level, its mean as a line and every axis as a mark that points along it, between the limits wanted. */
const props = defineProps<{ fit: FitView; narrow?: boolean }>()
const LEFT = 420
const right = props.narrow ? 540 : 604
const whole = computed(() => depthOf(props.fit))
const wanted = computed(() => props.fit.wanted)
const limits = computed(() =>
  [wanted.value?.least_m, wanted.value?.greatest_m].filter((one): one is number => typeof one === 'number'),
)
const scale = computed(() =>
  scaleOf(
    [
      0,
      ...limits.value,
      ...props.fit.levels.flatMap((one) => [
        one.press.value_m - one.press.expanded_m,
        one.press.value_m + one.press.expanded_m,
        ...one.places.map((place) => place.press.value_m),
      ]),
    ],
    LEFT,
    right,
    unit.value,
    props.narrow ? 2 : 4,
  ),
)
const down = (by: number) =>
  downDepth(props.fit.levels, whole.value, (one) =>
    scale.value.x(one.press.value_m + by * one.press.expanded_m),
  )
const line = computed(() => lineOf(down(0)))
const band = computed(() => bandOf(down(-1), down(1)))
/** Axes of a level stand above and below its line, in their order, so that none hides another. */
const offset = (at: number, count: number) => (at - (count - 1) / 2) * 8
const turn = (place: FitPlaceView) => `rotate(${place.axis_deg})`
const window = computed(() => {
  const [least, greatest] = [wanted.value?.least_m ?? null, wanted.value?.greatest_m ?? null]
  if (least === null && greatest === null) return null
  return {
    from: least === null ? LEFT : scale.value.x(least),
    to: greatest === null ? right : scale.value.x(greatest),
  }
})
const WORDS: Record<string, string> = { in: 'in', 'cannot tell': 'cannot tell', 'read again': 'read again' }
function words(level: FitView['levels'][number]): string {
  if (!wanted.value) return ''
  if (level.state !== 'out') return WORDS[level.state] ?? level.state
  const places = level.places.filter((one) => one.state === 'out')
  const above = places.some((one) => one.press.value_m > (wanted.value?.greatest_m ?? Infinity))
  return above || level.press.value_m > (wanted.value.greatest_m ?? Infinity) ? 'too firm' : 'too loose'
}
</script>

<template>
  <g>
    <text :x="LEFT" y="-34" class="fill-ink font-bold" font-size="15">Press, on the diameter</text>
    <text :x="LEFT" y="-15" class="fill-ink-soft" font-size="13">
      {{ unit
      }}<template v-if="wanted">
        · {{ wanted.school }} {{ limits.map((one) => lengthText(one, unit)).join(' to ')
        }}<template v-if="wanted.aim_m !== null"
          >, aim {{ lengthText(wanted.aim_m, unit) }}</template
        > </template
      ><template v-else> · the card wants none yet</template>
    </text>
    <rect
      v-if="window"
      :x="window.from"
      :y="TOP"
      :width="Math.max(0, window.to - window.from)"
      :height="BOTTOM - TOP"
      class="fill-track"
    />
    <path :d="`M${scale.x(0)} ${TOP}V${BOTTOM}`" class="stroke-ink-soft" stroke-width="1" />
    <path
      v-if="wanted?.least_m != null"
      :d="`M${scale.x(wanted.least_m)} ${TOP}V${BOTTOM}`"
      class="stroke-ink"
      stroke-width="1.8"
      stroke-dasharray="5 4"
    />
    <path
      v-if="wanted?.greatest_m != null"
      :d="`M${scale.x(wanted.greatest_m)} ${TOP}V${BOTTOM}`"
      class="stroke-ink"
      stroke-width="1.8"
    />
    <path :d="band" class="fill-part" opacity="0.14" />
    <path :d="line" class="fill-none stroke-part" stroke-width="2" />
    <g v-for="level in fit.levels" :key="level.name">
      <g
        v-for="(place, at) in level.places"
        :key="place.axis_deg"
        :transform="`translate(${scale.x(place.press.value_m)} ${yAt(level.depth_m, whole) + offset(at, level.places.length)})`"
        :class="STATE_TONE[place.state]"
        stroke="currentColor"
      >
        <path :transform="turn(place)" d="M-9 0H9" stroke-width="1.8" />
        <path v-if="place.state === 'out'" d="M-5 0 0-5 5 0 0 5z" fill="currentColor" stroke="none" />
        <circle
          v-else
          r="3.8"
          stroke-width="1.8"
          :fill="place.state === 'in' ? 'currentColor' : 'var(--color-paper)'"
        />
        <title>
          {{ place.axis_deg }}°: {{ lengthText(place.press.value_m, unit, { signed: true }) }} ±{{
            uncertaintyText(place.press.expanded_m, unit)
          }}
          {{ unit }}, {{ place.state }}
        </title>
      </g>
      <StateGate v-if="wanted" :state="level.state" :x="right + 8" :y="yAt(level.depth_m, whole) - 9" />
      <text :x="right + 40" :y="yAt(level.depth_m, whole) + 6" font-size="19" :class="FILL_TONE[level.state]">
        <tspan class="num font-bold">{{ lengthText(level.press.value_m, unit, { signed: true }) }}</tspan>
        <tspan font-size="13" class="fill-ink-soft">
          ±{{ uncertaintyText(level.press.expanded_m, unit) }}
        </tspan>
      </text>
      <text
        :x="right + 40"
        :y="yAt(level.depth_m, whole) + 22"
        font-size="13"
        :class="FILL_TONE[level.state]"
      >
        {{ words(level) }}
      </text>
    </g>
    <g v-for="tick in scale.ticks" :key="tick.text">
      <path :d="`M${tick.x} ${BOTTOM}v6`" class="stroke-ink" />
      <text :x="tick.x" :y="BOTTOM + 20" text-anchor="middle" font-size="13" class="num fill-ink">
        {{ tick.text }}
      </text>
    </g>
  </g>
</template>
