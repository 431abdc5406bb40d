<script setup lang="ts">
import { computed } from 'vue'

import type { DropPlanView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { FRAME, span } from './chart'
import type { Tried } from './useHeat'
import WindowPicture from './WindowPicture.vue'

/** The drop window: clearance of the worst pair against seconds with its band, and the steps of the run under it. */
const props = defineProps<{ plan: DropPlanView; tried: Tried }>()
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
const window = computed(() => props.plan.window)
const home = computed(() => props.tried.enter_s + props.tried.home_s)
/** The moment a window closes, where it does while the picture lasts. */
const by = computed(() => window.value.home_by_s)
const spare = computed(() => (by.value === null ? null : by.value - home.value))
const clear = computed(() => props.plan.steps[1]?.low_m ?? 0)
const atHome = computed(() => props.plan.steps[2] ?? null)
</script>

<template>
  <figure class="grid gap-1" aria-label="Drop window">
    <figcaption>
      <p v-if="by !== null && by <= tried.enter_s" class="text-2xl leading-tight">
        <b class="text-out">The window is shut before it enters.</b>
      </p>
      <p v-else-if="by !== null" class="text-2xl leading-tight">
        Home within <b class="num text-act">{{ (by - tried.enter_s).toFixed(1) }} s of entering</b>, that is
        <b class="num text-act">{{ by.toFixed(0) }} s</b> out of the cold
      </p>
      <p v-else class="text-2xl leading-tight">
        <b class="text-in">The window stays open</b> as long as it is looked at
      </p>
      <p v-if="plan.water.left && plan.steps[1]?.drops !== 'drops freely'" class="font-bold text-out">
        With the frost that is left on it it does not drop freely: wipe and dry it as it goes in.
      </p>
      <p class="text-ink-soft">
        <template v-if="spare !== null && spare >= 0"
          >Planned home {{ tried.home_s }} s after entering: <b class="num">{{ spare.toFixed(1) }} s</b> to
          spare.</template
        >
        <b v-else-if="spare !== null" class="text-out"
          >Planned home {{ tried.home_s }} s after entering: {{ (-spare).toFixed(1) }} s too late.</b
        >
        <template v-if="window.grabs_s !== null && window.grabs_s > tried.enter_s">
          It may grab from {{ window.grabs_s.toFixed(0) }} s on.</template
        >
      </p>
    </figcaption>
    <WindowPicture
      v-slot="{ chart, x, right, narrow }"
      :window="plan.window"
      :wanted="tried.wanted_m"
      :height="456"
    >
      <path :d="`M${x(tried.enter_s)} ${FRAME.top}V${FRAME.bottom}`" class="stroke-ink" stroke-width="2" />
      <g v-if="by !== null && by > tried.enter_s">
        <path :d="`M${x(by)} ${FRAME.top}V396`" class="stroke-act" stroke-width="3" />
        <circle
          :cx="x(by)"
          :cy="chart.y(tried.wanted_m)"
          r="6.5"
          class="fill-sheet stroke-act"
          stroke-width="3"
        />
        <text :x="x(by) + 9" :y="FRAME.top + 20" font-size="17" class="fill-act font-bold">
          home by {{ by.toFixed(0) }} s
        </text>
      </g>
      <text :x="x(tried.enter_s) - 9" :y="FRAME.top + 20" text-anchor="end" font-size="16" class="fill-ink">
        enters with {{ small(clear) }}
      </text>
      <g font-size="14">
        <rect
          :x="FRAME.left"
          y="402"
          :width="Math.max(0, x(tried.enter_s) - FRAME.left)"
          height="40"
          class="fill-iron stroke-rule"
        />
        <text v-if="tried.enter_s > 12 && !narrow" :x="FRAME.left + 8" y="427" class="fill-ink">
          carried, wiped, over the hole: {{ span(tried.enter_s) }}
        </text>
        <rect
          :x="x(tried.enter_s)"
          y="402"
          :width="Math.max(3, x(home) - x(tried.enter_s))"
          height="40"
          :class="spare !== null && spare < 0 ? 'fill-out' : 'fill-act'"
        />
        <text v-if="!narrow" :x="Math.min(x(home) + 8, right - 190)" y="427" class="fill-ink">
          drop, {{ tried.home_s }} s{{ atHome ? `: home with ${small(atHome.low_m)}` : '' }}
        </text>
      </g>
    </WindowPicture>
    <p class="text-sm text-ink-soft">
      Clearance on the diameter, in {{ unit }}, of the greatest liner against the least hole. The band holds
      95 of 100: {{ plan.spreads.join('; ') }}.
    </p>
  </figure>
</template>
