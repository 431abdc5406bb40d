<script setup lang="ts">
import { ticks } from 'd3-array'
import { computed } from 'vue'

import type { FitView, GoingInView, SchoolOfFitView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { bandOf, BOTTOM, depthOf, lineOf, TOP, yAt } from './fit'

/** Force to pull it in against how far the foot is down: as it is with its band, and by the other schools as lines. */
const props = defineProps<{ fit: FitView; asIs: SchoolOfFitView }>()
const LEFT = 1032
const RIGHT = 1232
const whole = computed(() => depthOf(props.fit))
const others = computed(() => props.fit.schools.filter((one) => one.name !== 'as it is' && one.going_in))
const most = computed(() =>
  Math.max(100, ...props.fit.schools.flatMap((one) => (one.going_in ? [one.going_in.greatest_n.high] : []))),
)
const x = (newtons: number) => LEFT + (newtons / (most.value * 1.04)) * (RIGHT - LEFT)
const points = (going: GoingInView, forces: number[]) =>
  going.depths_m.map((depth, at): [number, number] => [x(forces[at] ?? 0), yAt(depth, whole.value)])
const going = computed(() => props.asIs.going_in)
const marks = computed(() => ticks(0, most.value / 1000, 4))
/** Names stand where their line has left the others. */
const named = computed(() =>
  others.value.map((one, at) => {
    const way = one.going_in as GoingInView
    const index = Math.round(way.depths_m.length * (0.5 + 0.22 * at))
    return {
      name: one.name,
      line: lineOf(points(way, way.middle_n)),
      x: x(way.middle_n[index] ?? 0),
      y: yAt(way.depths_m[index] ?? 0, whole.value),
    }
  }),
)
</script>

<template>
  <g v-if="going">
    <text :x="LEFT - 4" y="-34" class="fill-ink font-bold" font-size="15">Force to pull it in</text>
    <text :x="LEFT - 4" y="-15" class="fill-ink-soft" font-size="13"
      >kN by depth of its foot, with friction</text
    >
    <path
      :d="bandOf(points(going, going.low_n), points(going, going.high_n))"
      class="fill-part"
      opacity="0.14"
    />
    <path
      v-for="one in named"
      :key="one.name"
      :d="one.line"
      class="fill-none stroke-ink"
      stroke-width="1.3"
    />
    <path :d="lineOf(points(going, going.middle_n))" class="fill-none stroke-part" stroke-width="2.4" />
    <rect
      :x="LEFT - 6"
      :y="TOP"
      width="6"
      :height="Math.max(0, yAt(going.by_hand_m.middle, whole) - TOP)"
      class="fill-part"
    />
    <path
      :d="`M${LEFT - 6} ${yAt(going.by_hand_m.middle, whole)}H${LEFT + 128}`"
      class="stroke-part"
      stroke-width="1.2"
    />
    <text
      :x="LEFT + 6"
      :y="yAt(going.by_hand_m.middle, whole) - 6"
      font-size="14"
      class="fill-part font-bold"
    >
      by hand {{ lengthText(going.by_hand_m.middle, SIZE_WITH[unit], { digits: unit === 'thou' ? 2 : 0 }) }}
      {{ SIZE_WITH[unit] }}
    </text>
    <g v-for="one in named" :key="one.name">
      <text
        :x="one.x + 6"
        :y="one.y + 4"
        font-size="13"
        class="fill-ink stroke-paper"
        stroke-width="4"
        paint-order="stroke"
      >
        {{ one.name }}
      </text>
    </g>
    <g v-for="at in going.stiffens_m" :key="at">
      <path :d="`M${LEFT} ${yAt(at, whole)}h-10`" class="stroke-act" stroke-width="2.5" />
      <text :x="RIGHT" :y="yAt(at, whole) + 4" text-anchor="end" font-size="13" class="fill-act font-bold">
        stiffens here
      </text>
    </g>
    <path :d="`M${LEFT} ${TOP}V${BOTTOM}`" class="stroke-ink" stroke-width="1.2" />
    <g v-for="mark in marks" :key="mark">
      <path :d="`M${x(mark * 1000)} ${BOTTOM}v6`" class="stroke-ink" />
      <text :x="x(mark * 1000)" :y="BOTTOM + 20" text-anchor="middle" font-size="13" class="num fill-ink">
        {{ mark }}
      </text>
    </g>
  </g>
</template>
