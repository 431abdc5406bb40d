<script setup lang="ts">
import { computed } from 'vue'

import type { HoleOffView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { endsOf, stemsOf, ticksOf } from './stems'

/** What every reading leaves over, as stems from nought, hole by hole with liner and make: what adds up lies on it. */
const props = defineProps<{ holes: readonly HoleOffView[]; wide: number }>()
const TALL = 212
const TOP = 44
const BOTTOM = 160
const stems = computed(() => stemsOf(props.holes, props.wide))
const ends = computed(() => endsOf(stems.value))
const y = (metres: number) =>
  TOP + ((ends.value.high - metres) / (ends.value.high - ends.value.low)) * (BOTTOM - TOP)
const digits = computed(() => (unit.value === 'thou' ? 1 : 0))
const small = (metres: number) => lengthText(metres, unit.value, { digits: digits.value, signed: true })
const ticks = computed(() => ticksOf(ends.value.low, ends.value.high, unit.value === 'thou' ? 25.4e-6 : 1e-6))
const narrow = computed(() => props.wide / props.holes.length < 74)
const words = (one: HoleOffView) =>
  one.middle
    ? `hole ${one.hole}, ${one.liner} ${one.make}: ${small(one.middle.value_m)}, ${one.adds_up ? 'adds up' : 'does not'}`
    : `hole ${one.hole}: ${one.adds_up ? 'adds up' : 'does not'}`
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${wide} ${TALL}`"
    class="block w-full"
    role="img"
    :aria-label="`What is left over: ${holes.map(words).join('; ')}`"
  >
    <g v-for="tick in ticks" :key="tick">
      <path :d="`M0 ${y(tick)}H${wide}`" class="stroke-rule" stroke-width="1" />
    </g>
    <path :d="`M0 ${y(0)}H${wide}`" class="stroke-ink" stroke-width="1.6" />
    <g v-for="one in stems" :key="one.hole.hole">
      <rect
        v-if="one.hole.middle"
        :x="one.left + 3"
        :width="one.width - 6"
        :y="y(one.hole.middle.expanded_m)"
        :height="y(-one.hole.middle.expanded_m) - y(one.hole.middle.expanded_m)"
        class="fill-part"
        opacity="0.12"
      />
      <text :x="one.middle" y="18" text-anchor="middle" font-size="19" class="fill-ink font-bold">
        {{ one.hole.hole }}
      </text>
      <text :x="one.middle" y="36" text-anchor="middle" font-size="13" class="fill-ink-soft">
        {{ one.hole.liner }} {{ narrow ? '' : one.hole.make }}
      </text>
      <g v-for="stem in one.stems" :key="stem.x" :class="one.hole.adds_up ? 'stroke-part' : 'stroke-unsure'">
        <path :d="`M${stem.x} ${y(0)}V${y(stem.value_m)}`" stroke-width="2.4" />
        <path
          :d="`M${stem.x} ${y(stem.value_m + stem.expanded_m)}V${y(stem.value_m - stem.expanded_m)}`"
          stroke-width="1"
        />
        <circle
          :cx="stem.x"
          :cy="y(stem.value_m)"
          r="3.6"
          stroke-width="1.6"
          :class="one.hole.adds_up ? 'fill-part' : 'fill-paper'"
        />
      </g>
      <text
        v-if="one.hole.middle"
        :x="one.middle"
        y="185"
        text-anchor="middle"
        font-size="17"
        class="num font-bold"
        :class="one.hole.adds_up ? 'fill-part' : 'fill-unsure'"
      >
        {{ small(one.hole.middle.value_m) }}
        <tspan v-if="!narrow" font-size="12" class="fill-ink-soft">
          ±{{ lengthText(one.hole.middle.expanded_m, unit, { digits }) }}
        </tspan>
      </text>
      <text
        :x="one.middle"
        y="204"
        text-anchor="middle"
        font-size="13"
        class="font-bold"
        :class="one.hole.adds_up ? 'fill-part' : 'fill-unsure'"
      >
        {{ one.hole.adds_up ? 'adds up' : 'does not' }}
      </text>
    </g>
    <text
      v-for="tick in ticks"
      :key="`t${tick}`"
      x="2"
      :y="y(tick) - 3"
      font-size="12"
      class="num fill-ink-soft"
      paint-order="stroke"
    >
      {{ tick === 0 ? '0' : small(tick) }}
    </text>
  </svg>
</template>
