<script setup lang="ts">
import { ticks } from 'd3-array'
import { computed } from 'vue'

import type { HotHoldView, HotMomentView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Block on the left, liner on the right, what is left of the press between: a straight line for every moment. */
const props = defineProps<{ view: HotHoldView; chosen: number }>()
const emit = defineEmits<{ choose: [at: number] }>()
const TOP = 56
const BASE = 420
const BLOCK = 84
const MIDDLE = 300
const LINER = 500
const moments = computed(() => props.view.moments)
const blockTicks = computed(() =>
  ticks(
    Math.min(20, ...moments.value.map((one) => one.block_c)),
    Math.max(120, ...moments.value.map((one) => one.block_c)),
    6,
  ),
)
const blockFrom = computed(() => Math.min(20, ...moments.value.map((one) => one.block_c)))
const blockTo = computed(() => Math.max(110, ...moments.value.map((one) => one.block_c)))
const linerFrom = computed(() => Math.min(20, ...moments.value.map((one) => one.liner_c)))
const linerTo = computed(() => Math.max(140, ...moments.value.map((one) => one.liner_c)))
const linerTicks = computed(() => ticks(linerFrom.value, linerTo.value, 6))
const yBlock = (c: number) => TOP + ((c - blockFrom.value) / (blockTo.value - blockFrom.value)) * (BASE - TOP)
const yLiner = (c: number) =>
  BASE - ((c - linerFrom.value) / (linerTo.value - linerFrom.value)) * (BASE - TOP)
const across = (MIDDLE - BLOCK) / (LINER - BLOCK)
/** Where the line of a moment crosses the middle. */
const yPress = (one: HotMomentView) =>
  yBlock(one.block_c) + (yLiner(one.liner_c) - yBlock(one.block_c)) * across
/** The scale of the press is fitted through the moments themselves: it is linear in both temperatures. */
const scale = computed(() => {
  const points = moments.value.map((one) => [one.press.value_m, yPress(one)] as const)
  const n = points.length
  const [mx, my] = [
    points.reduce((sum, p) => sum + p[0], 0) / n,
    points.reduce((sum, p) => sum + p[1], 0) / n,
  ]
  const xx = points.reduce((sum, p) => sum + (p[0] - mx) ** 2, 0)
  const slope = xx > 0 ? points.reduce((sum, p) => sum + (p[0] - mx) * (p[1] - my), 0) / xx : 0
  return { slope, off: my - slope * mx }
})
</script>

<template>
  <svg v-legible viewBox="0 0 600 450" class="block w-full" role="group" aria-label="Block, press, liner">
    <text :x="BLOCK" y="18" text-anchor="middle" font-size="15" class="fill-ink font-bold">block, °C</text>
    <text :x="BLOCK" y="34" text-anchor="middle" font-size="12" class="fill-ink-soft">hotter loosens</text>
    <text :x="MIDDLE" y="18" text-anchor="middle" font-size="15" class="fill-ink font-bold">
      press on Ø, {{ unit }}
    </text>
    <text :x="MIDDLE" y="34" text-anchor="middle" font-size="12" class="fill-ink-soft">
      beside each crossing
    </text>
    <text :x="LINER" y="18" text-anchor="middle" font-size="15" class="fill-ink font-bold">liner, °C</text>
    <text :x="LINER" y="34" text-anchor="middle" font-size="12" class="fill-ink-soft">hotter tightens</text>
    <path :d="`M${BLOCK} ${TOP}V${BASE}M${LINER} ${TOP}V${BASE}`" class="stroke-ink" stroke-width="2" />
    <path :d="`M${MIDDLE} ${TOP}V${BASE}`" class="stroke-ink-soft" stroke-width="1.4" />
    <g v-for="tick in blockTicks" :key="`b${tick}`">
      <path :d="`M${BLOCK - 6} ${yBlock(tick)}h6`" class="stroke-ink" />
      <text :x="BLOCK - 18" :y="yBlock(tick) + 5" text-anchor="end" font-size="14" class="num fill-ink">
        {{ tick }}
      </text>
    </g>
    <g v-for="tick in linerTicks" :key="`l${tick}`">
      <path :d="`M${LINER} ${yLiner(tick)}h6`" class="stroke-ink" />
      <text :x="LINER + 18" :y="yLiner(tick) + 5" font-size="14" class="num fill-ink">{{ tick }}</text>
    </g>
    <g v-if="scale.slope !== 0">
      <path :d="`M${MIDDLE - 9} ${scale.off}h60`" class="stroke-ink" stroke-width="2.4" />
      <text :x="MIDDLE + 56" :y="scale.off + 5" font-size="13" class="fill-ink">0: free beyond</text>
    </g>
    <!-- Its numbers stand beside the button: they are no part of its name. -->
    <g v-for="(one, at) in moments" :key="one.name" :class="at === chosen ? 'text-part' : 'text-ink-soft'">
      <g
        role="button"
        tabindex="0"
        class="cursor-pointer"
        :aria-label="`${one.name}: ${lengthText(one.press.value_m, unit, { signed: true })} ${unit}`"
        :aria-pressed="at === chosen"
        @click="emit('choose', at)"
        @keydown.enter.prevent="emit('choose', at)"
      >
        <path
          :d="`M${BLOCK} ${yBlock(one.block_c)}L${LINER} ${yLiner(one.liner_c)}`"
          stroke="currentColor"
          :stroke-width="at === chosen ? 3 : 1.3"
        />
        <circle :cx="MIDDLE" :cy="yPress(one)" r="5.5" fill="currentColor" />
        <text
          :x="MIDDLE - 12"
          :y="yPress(one) - 7"
          text-anchor="end"
          font-size="15"
          fill="currentColor"
          class="num stroke-paper font-bold"
          stroke-width="4"
          paint-order="stroke"
        >
          {{ lengthText(one.press.value_m, unit, { signed: true }) }}
        </text>
      </g>
      <g
        v-for="[x, y] in [
          [BLOCK, yBlock(one.block_c)],
          [LINER, yLiner(one.liner_c)],
        ]"
        :key="x"
        class="pointer-events-none"
      >
        <circle
          :cx="x"
          :cy="y"
          r="11"
          stroke="currentColor"
          stroke-width="2"
          :fill="at === chosen ? 'currentColor' : 'var(--color-paper)'"
        />
        <text
          :x="x"
          :y="(y ?? 0) + 5"
          text-anchor="middle"
          font-size="13"
          class="font-bold"
          :class="at === chosen ? 'fill-paper' : 'fill-ink'"
        >
          {{ at + 1 }}
        </text>
      </g>
    </g>
  </svg>
</template>
