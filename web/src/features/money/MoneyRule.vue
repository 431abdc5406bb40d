<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { StandingView } from '@/api/generated'

import { money, number } from './words'

/** The whole estimate as one steel rule: used so far, least, what was agreed at worst, what is taken off, what was found. */
const props = defineProps<{ standing: StandingView; currency: string }>()
const box = ref<HTMLElement | null>(null)
const { width: seen } = useElementSize(box)
const width = computed(() => Math.max(seen.value || 700, 320))
const one = computed(() => props.standing)
const most = computed(() => Math.max(number(one.value.agreed) + number(one.value.found_money), 1))
const x = (value: number) => 2 + (width.value - 60) * (value / most.value)
const step = computed(
  () =>
    10 ** Math.floor(Math.log10(most.value)) /
    (most.value / 10 ** Math.floor(Math.log10(most.value)) > 4 ? 1 : 2),
)
const ticks = computed(() =>
  Array.from({ length: Math.floor(number(one.value.agreed) / step.value) }, (_, at) => (at + 1) * step.value),
)
const agreedX = computed(() => x(number(one.value.agreed)))
const offX = computed(() => x(number(one.value.agreed) - number(one.value.off)))
const atMostX = computed(() => x(number(one.value.at_most)))
</script>

<template>
  <div ref="box">
    <svg
      :width="width"
      height="104"
      role="img"
      :aria-label="`${money(one.so_far)} used of ${money(one.agreed)} agreed`"
    >
      <text
        :x="Math.min(Math.max(x(number(one.so_far)) - 60, 2), width - 160)"
        y="14"
        class="fill-part text-[15px] font-bold"
      >
        so far {{ money(one.so_far) }}
      </text>
      <text :x="agreedX" y="14" text-anchor="end" class="fill-ink text-[15px] font-bold">
        worst agreed {{ money(one.agreed) }}
      </text>
      <rect
        v-if="number(one.off) > 0"
        :x="offX"
        y="26"
        :width="Math.max(agreedX - offX, 0)"
        height="34"
        class="fill-track"
      />
      <path :d="`M2,26H${agreedX}a17,17 0 0 1 0,34H2z`" fill="none" class="stroke-ink" stroke-width="1.6" />
      <circle :cx="agreedX + 1" cy="43" r="6" class="fill-paper stroke-ink" stroke-width="1.6" />
      <g v-for="tick in ticks" :key="tick">
        <line :x1="x(tick)" :x2="x(tick)" y1="26" y2="36" class="stroke-ink-soft" />
        <text :x="x(tick) + 3" y="40" class="fill-ink-soft text-[13px]">
          {{ tick.toLocaleString('en-GB') }}
        </text>
      </g>
      <rect x="3" y="46" :width="Math.max(x(number(one.so_far)) - 3, 0)" height="13" class="fill-part" />
      <line
        :x1="x(number(one.low))"
        :x2="x(number(one.low))"
        y1="20"
        y2="64"
        class="stroke-ink"
        stroke-width="3"
      />
      <text :x="Math.min(x(number(one.low)) + 5, width - 170)" y="76" class="fill-ink text-[14px]">
        low {{ money(one.low) }}
      </text>
      <template v-if="one.is_broken">
        <circle
          :cx="Math.max(atMostX, agreedX + 30)"
          cy="43"
          r="6"
          fill="none"
          class="stroke-out"
          stroke-width="2"
          stroke-dasharray="3 2"
        />
        <path
          :d="`M${agreedX},64v8H${Math.max(atMostX, agreedX + 30)}v-8`"
          fill="none"
          class="stroke-out"
          stroke-width="2"
        />
        <text :x="width - 4" y="92" text-anchor="end" class="fill-out text-[15px] font-bold">
          found +{{ money(one.found_money) }}
        </text>
      </template>
    </svg>
    <p>
      <b class="num">{{ money(one.agreed) }}</b> agreed
      <template v-if="number(one.off) > 0"
        ><b class="num text-in">− {{ money(one.off) }}</b> off
      </template>
      <template v-if="number(one.found_money) > 0"
        ><b class="num text-out">+ {{ money(one.found_money) }}</b> found
      </template>
      = <b class="num text-lg">{{ money(one.at_most) }} {{ currency }}</b> at most
    </p>
    <p class="text-ink-soft">
      tax, rounded once for each rate: <span class="num">{{ money(one.tax) }}</span>, with it
      <b class="num text-ink">{{ money(number(one.at_most) + number(one.tax)) }} {{ currency }}</b> · hours
      {{ one.hours_used }} of {{ one.hours_agreed }}
    </p>
  </div>
</template>
