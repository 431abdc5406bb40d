<script setup lang="ts">
import { computed } from 'vue'

import type { PullPageView, PullView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** The liner on its way down, cut through: how far its flange is from the ledge, how far its foot is down, its mark. */
const props = defineProps<{ page: PullPageView; pull: PullView }>()
const LENGTH = 440
const length = computed(() => props.page.length_m ?? props.pull.from_m)
const px = (metres: number) => (metres / length.value) * LENGTH
const down = computed(() => Math.max(0, length.value - props.pull.to_go_m))
/** The ledge stands here; the flange so far above it. */
const LEDGE = 226
const flange = computed(() => LEDGE - px(props.pull.to_go_m) * 0.42)
const foot = computed(() => flange.value + LENGTH * 0.8)
const text = (metres: number) =>
  `${lengthText(metres, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 2 : 0 })} ${SIZE_WITH[unit.value]}`
const isIn = computed(() => Math.max(0, foot.value - LEDGE))
</script>

<template>
  <svg
    v-legible
    viewBox="0 0 360 660"
    class="block h-full max-h-[40rem] w-full"
    role="img"
    aria-label="The liner on its way in"
  >
    <path d="M20 250H60V640H20zM300 250H340V640H300z" class="fill-iron stroke-ink-soft" />
    <path
      :d="`M20 206H44V${LEDGE}H60V250H20zM340 206H316V${LEDGE}H300V250H340z`"
      class="fill-iron stroke-ink-soft"
    />
    <text x="18" y="198" font-size="14" class="fill-ink-soft">deck</text>
    <g class="stroke-part" stroke-width="2">
      <path
        :d="`M48 ${flange - 16}H84V${foot}H66V${flange}H48zM312 ${flange - 16}H276V${foot}H294V${flange}H312z`"
        class="fill-part-wash"
      />
    </g>
    <g v-if="isIn > 0" class="fill-part">
      <path :d="`M60 250h8V${Math.max(250, foot - 4)}h-8zM300 250h-8V${Math.max(250, foot - 4)}h8z`" />
    </g>
    <rect x="30" :y="flange - 32" width="300" height="14" class="fill-ink" />
    <text x="180" :y="flange + 42" text-anchor="middle" font-size="18" class="fill-part font-bold">
      liner {{ pull.liner }}
    </text>
    <g v-if="pull.to_go_m > 0" class="stroke-act fill-act">
      <path :d="`M326 ${flange}H350M338 ${flange}V${LEDGE - 8}`" stroke-width="2.5" />
      <path :d="`M331 ${LEDGE - 10}h14l-7 10z`" stroke="none" />
    </g>
    <g :transform="`translate(180 ${flange + 150})`">
      <circle r="58" class="fill-paper stroke-part" stroke-width="9" />
      <path d="M0 -50l7 13h-14z" class="fill-ink" />
      <text y="-16" text-anchor="middle" font-size="13" class="fill-ink-soft">12 h</text>
      <text y="6" text-anchor="middle" font-size="14" class="fill-ink font-bold">mark stays</text>
      <text y="24" text-anchor="middle" font-size="14" class="fill-ink font-bold">at 12 h</text>
      <text y="84" text-anchor="middle" font-size="13" class="fill-ink-soft">{{ page.front }}</text>
    </g>
    <text x="66" :y="Math.min(648, foot + 18)" font-size="14" class="fill-part">
      <tspan class="num font-bold">{{ text(down) }}</tspan>
      down
    </text>
  </svg>
</template>
