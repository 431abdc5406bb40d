<script setup lang="ts">
import { ticks } from 'd3-array'
import { computed } from 'vue'

import type { HotHoldView, HotMomentView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

/** Block on the left, liner on the right, what is left of the press between: a straight line for every moment. */
const props = defineProps<{ view: HotHoldView; chosen: number }>()
const emit = defineEmits<{ choose: [moment: number] }>()
const TOP = 56
const BASE = 420
const phone = usePhone()
/** Where the three rules stand, and how wide it all is. */
const at = computed(() =>
  phone.value
    ? { block: 56, middle: 178, liner: 300, wide: 350 }
    : { block: 84, middle: 300, liner: 500, wide: 600 },
)
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
const across = computed(() => (at.value.middle - at.value.block) / (at.value.liner - at.value.block))
/** Where the line of a moment crosses the middle. */
const yPress = (one: HotMomentView) =>
  yBlock(one.block_c) + (yLiner(one.liner_c) - yBlock(one.block_c)) * across.value
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
  <svg
    v-legible
    :viewBox="`0 0 ${at.wide} 450`"
    class="block w-full"
    role="group"
    aria-label="Block, press, liner"
  >
    <text :x="at.block" y="18" text-anchor="middle" font-size="15" class="fill-ink font-bold">block, °C</text>
    <text :x="at.block" y="34" text-anchor="middle" font-size="12" class="fill-ink-soft">hotter loosens</text>
    <text :x="at.middle" y="18" text-anchor="middle" font-size="15" class="fill-ink font-bold">
      press on Ø, {{ unit }}
    </text>
    <text :x="at.middle" y="34" text-anchor="middle" font-size="12" class="fill-ink-soft">
      beside each crossing
    </text>
    <text :x="at.liner" y="18" text-anchor="middle" font-size="15" class="fill-ink font-bold">liner, °C</text>
    <text :x="at.liner" y="34" text-anchor="middle" font-size="12" class="fill-ink-soft">
      hotter tightens
    </text>
    <path :d="`M${at.block} ${TOP}V${BASE}M${at.liner} ${TOP}V${BASE}`" class="stroke-ink" stroke-width="2" />
    <path :d="`M${at.middle} ${TOP}V${BASE}`" class="stroke-ink-soft" stroke-width="1.4" />
    <g v-for="tick in blockTicks" :key="`b${tick}`">
      <path :d="`M${at.block - 6} ${yBlock(tick)}h6`" class="stroke-ink" />
      <text :x="at.block - 18" :y="yBlock(tick) + 5" text-anchor="end" font-size="14" class="num fill-ink">
        {{ tick }}
      </text>
    </g>
    <g v-for="tick in linerTicks" :key="`l${tick}`">
      <path :d="`M${at.liner} ${yLiner(tick)}h6`" class="stroke-ink" />
      <text :x="at.liner + 18" :y="yLiner(tick) + 5" font-size="14" class="num fill-ink">{{ tick }}</text>
    </g>
    <g v-if="scale.slope !== 0">
      <path :d="`M${at.middle - 9} ${scale.off}h60`" class="stroke-ink" stroke-width="2.4" />
      <text :x="at.middle + 56" :y="scale.off + 5" font-size="13" class="fill-ink">
        {{ phone ? '0' : '0: free beyond' }}
      </text>
    </g>
    <!-- Its numbers stand beside the button: they are no part of its name. -->
    <g
      v-for="(one, index) in moments"
      :key="one.name"
      :class="index === chosen ? 'text-part' : 'text-ink-soft'"
    >
      <g
        role="button"
        tabindex="0"
        class="cursor-pointer"
        :aria-label="`${one.name}: ${lengthText(one.press.value_m, unit, { signed: true })} ${unit}`"
        :aria-pressed="index === chosen"
        @click="emit('choose', index)"
        @keydown.enter.prevent="emit('choose', index)"
      >
        <path
          :d="`M${at.block} ${yBlock(one.block_c)}L${at.liner} ${yLiner(one.liner_c)}`"
          stroke="currentColor"
          :stroke-width="index === chosen ? 3 : 1.3"
        />
        <circle :cx="at.middle" :cy="yPress(one)" r="5.5" fill="currentColor" />
        <text
          :x="at.middle - 12"
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
          [at.block, yBlock(one.block_c)],
          [at.liner, yLiner(one.liner_c)],
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
          :fill="index === chosen ? 'currentColor' : 'var(--color-paper)'"
        />
        <text
          :x="x"
          :y="(y ?? 0) + 5"
          text-anchor="middle"
          font-size="13"
          class="font-bold"
          :class="index === chosen ? 'fill-paper' : 'fill-ink'"
        >
          {{ index + 1 }}
        </text>
      </g>
    </g>
  </svg>
</template>
