<script setup lang="ts">
import { computed } from 'vue'

import type { DropPlanView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { pairAt, PAIRS, pairsFace, pairsLine, SPAN, xLiner, yBlock } from './chart'
import type { Tried } from './useHeat'

/** Block by liner: where the worst pair drops freely, where it needs a push, where it touches; limits of the parts. */
const props = defineProps<{ plan: DropPlanView; tried: Tried }>()
const emit = defineEmits<{ choose: [pair: { block_c: number; liner_c: number }] }>()
const MEDIA = [
  { c: -195.8, name: 'nitrogen' },
  { c: -78.5, name: 'dry ice' },
  { c: -18, name: 'freezer' },
]
const small = (metres: number) => lengthText(metres, unit.value, { signed: true })
const hot = computed(() => props.plan.limits.filter((one) => !one.is_least && one.celsius <= SPAN.block[1]))
const cold = computed(() => props.plan.limits.filter((one) => one.is_least && one.celsius >= SPAN.liner[0]))
function choose(event: MouseEvent): void {
  const svg = event.currentTarget as SVGSVGElement
  const box = svg.getBoundingClientRect()
  const x = ((event.clientX - box.left) / box.width) * 580
  const y = ((event.clientY - box.top) / box.height) * 430
  emit('choose', pairAt(x, y))
}
const state = computed(
  () =>
    ({ 'drops freely': 'fill-in', 'needs a push': 'fill-unsure', grabs: 'fill-out' })[props.plan.at_start],
)
</script>

<template>
  <figure aria-label="Pairs of temperatures">
    <!-- The sliders beside it do the same by keyboard. -->
    <!-- eslint-disable-next-line vuejs-accessibility/click-events-have-key-events, vuejs-accessibility/no-static-element-interactions -->
    <svg v-legible viewBox="0 0 580 430" class="block w-full cursor-crosshair" @click="choose">
      <rect
        :x="PAIRS.left"
        :y="PAIRS.top"
        :width="PAIRS.right - PAIRS.left"
        :height="PAIRS.bottom - PAIRS.top"
        class="fill-iron"
      />
      <clipPath id="pairs-frame">
        <rect
          :x="PAIRS.left"
          :y="PAIRS.top"
          :width="PAIRS.right - PAIRS.left"
          :height="PAIRS.bottom - PAIRS.top"
        />
      </clipPath>
      <g clip-path="url(#pairs-frame)">
        <path :d="pairsFace(plan.touch_line)" class="fill-act-wash" />
        <path :d="pairsFace(plan.wanted_line)" class="fill-track" />
        <path :d="pairsLine(plan.touch_line)" class="stroke-ink" fill="none" stroke-width="1.6" />
        <path :d="pairsLine(plan.wanted_line)" class="stroke-in" fill="none" stroke-width="3" />
        <path
          v-for="one in hot"
          :key="one.what"
          :d="`M${PAIRS.left} ${yBlock(one.celsius)}H${PAIRS.right}`"
          class="stroke-out"
          stroke-width="1.6"
          stroke-dasharray="7 4"
        />
        <path
          v-for="one in cold"
          :key="one.what"
          :d="`M${xLiner(one.celsius)} ${PAIRS.top}V${PAIRS.bottom}`"
          class="stroke-out"
          stroke-width="1.6"
          stroke-dasharray="7 4"
        />
      </g>
      <g font-size="20" class="fill-out">
        <text
          v-for="one in hot"
          :key="one.what"
          :x="PAIRS.right - 6"
          :y="yBlock(one.celsius) - 5"
          text-anchor="end"
        >
          {{ one.what.replace('the ', '').split(',')[0] }} {{ one.celsius }} °C
        </text>
      </g>
      <g v-for="medium in MEDIA" :key="medium.name">
        <path :d="`M${xLiner(medium.c)} ${PAIRS.bottom}v7`" class="stroke-part" stroke-width="2" />
        <text
          :x="Math.max(xLiner(medium.c), PAIRS.left + 26)"
          :y="PAIRS.bottom + 40"
          text-anchor="middle"
          font-size="20"
          class="fill-part font-bold"
        >
          {{ medium.name }}
        </text>
      </g>
      <g font-size="20" class="num fill-ink">
        <text
          v-for="c in [-150, -100, -50, 0]"
          :key="c"
          :x="xLiner(c)"
          :y="PAIRS.bottom + 21"
          text-anchor="middle"
        >
          {{ c }}
        </text>
        <text
          v-for="c in [0, 50, 100, 150, 200]"
          :key="c"
          :x="PAIRS.left - 8"
          :y="yBlock(c) + 5"
          text-anchor="end"
        >
          {{ c }}
        </text>
      </g>
      <text :x="PAIRS.right" :y="PAIRS.bottom + 40" text-anchor="end" font-size="20" class="fill-ink-soft">
        liner, °C
      </text>
      <text :x="PAIRS.left + 6" :y="PAIRS.top + 18" font-size="20" class="fill-ink-soft">block, °C</text>
      <g :class="state">
        <path
          :d="`M${PAIRS.left} ${yBlock(tried.block_c)}H${xLiner(tried.liner_c)}V${PAIRS.bottom}`"
          class="stroke-ink"
          fill="none"
          stroke-width="1.2"
        />
        <circle
          :cx="xLiner(tried.liner_c)"
          :cy="yBlock(tried.block_c)"
          r="9"
          class="stroke-sheet"
          stroke-width="3"
        />
        <text
          :x="xLiner(tried.liner_c) - 14"
          :y="yBlock(tried.block_c) - 12"
          text-anchor="end"
          font-size="24"
          class="num stroke-sheet font-bold"
          stroke-width="4"
          paint-order="stroke"
        >
          {{ small(plan.clearance_m) }} {{ unit }}
        </text>
      </g>
    </svg>
    <figcaption class="text-sm text-ink-soft">
      Above the green line the worst pair drops freely, below the black one it touches. Dashed: what a part
      does not bear. Touch the picture to try a pair.
    </figcaption>
  </figure>
</template>
