<script setup lang="ts">
import { computed } from 'vue'

import type { FitView, SchoolOfFitView } from '@/api/generated'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { BOTTOM, depthOf, TOP, yAt } from './fit'

/** What is to come off by level to reach the aim, and what the press closes the liner's bore in, now and then. */
const props = defineProps<{
  fit: FitView
  asIs: SchoolOfFitView | null
  wanted: SchoolOfFitView | null
  narrow?: boolean
}>()
const LEFT = 738
/** Where the second column begins. */
const closes = props.narrow ? 846 : 872
const whole = computed(() => depthOf(props.fit))
const most = computed(() =>
  Math.max(8e-6, ...props.fit.levels.map((one) => (one.leave ? 0 : (one.stock?.value_m ?? 0)))),
)
const rows = computed(() =>
  props.fit.levels.map((level, at) => ({
    level,
    y: yAt(level.depth_m, whole.value),
    wide: level.leave ? 0 : ((level.stock?.value_m ?? 0) / most.value) * (props.narrow ? 24 : 44),
    now: props.asIs?.effects[at]?.close_in ?? null,
    then: props.wanted?.effects[at]?.close_in ?? null,
  })),
)
const isBlock = computed(() => props.fit.sizing === 'size the block')
</script>

<template>
  <g>
    <text :x="LEFT" y="-34" class="fill-ink font-bold" font-size="15">
      {{ isBlock ? 'Hone off, on Ø' : 'Off the liner, Ø' }}
    </text>
    <text :x="LEFT" y="-15" class="fill-ink-soft" font-size="13">
      {{ unit
      }}<template v-if="fit.wanted?.aim_m != null"
        >, to reach {{ lengthText(fit.wanted.aim_m, unit) }}</template
      >
    </text>
    <path :d="`M${LEFT} ${TOP}V${BOTTOM}`" class="stroke-rule" />
    <g v-for="row in rows" :key="row.level.name">
      <template v-if="row.level.stock">
        <text v-if="row.level.leave" :x="LEFT + 10" :y="row.y + 6" font-size="14" class="fill-ink-soft">
          leave
        </text>
        <template v-else>
          <rect :x="LEFT" :y="row.y - 9" :width="row.wide" height="18" class="fill-act" />
          <text :x="LEFT + row.wide + 6" :y="row.y + 6" font-size="18" class="fill-act">
            <tspan class="num font-bold">−{{ lengthText(row.level.stock.value_m, unit) }}</tspan>
            <tspan font-size="13" class="fill-ink-soft">
              ±{{ uncertaintyText(row.level.stock.expanded_m, unit) }}
            </tspan>
          </text>
        </template>
      </template>
    </g>
    <template v-if="asIs">
      <text :x="closes" y="-34" class="fill-ink font-bold" font-size="15">
        {{ narrow ? 'Bore closes in' : 'Closes the bore in' }}
      </text>
      <text :x="closes" y="-15" class="fill-ink-soft" font-size="13">
        {{ unit }} on Ø<template v-if="wanted">, now{{ narrow ? ' → sized' : ' and sized' }}</template>
      </text>
      <g v-for="row in rows" :key="row.level.name" class="num" font-size="16">
        <text v-if="row.now" :x="closes + 36" :y="row.y + 6" text-anchor="end" class="fill-ink-soft">
          {{ lengthText(row.now.value_m, unit) }}
        </text>
        <template v-if="row.now && row.then">
          <path
            :d="`M${closes + 44} ${row.y}h18m-6 -4 6 4-6 4`"
            class="fill-none stroke-ink-soft"
            stroke-width="1.3"
          />
          <text :x="closes + 70" :y="row.y + 6" class="fill-ink font-bold">
            {{ lengthText(row.then.value_m, unit) }}
            <tspan font-size="13" class="fill-ink-soft font-normal">
              ±{{ uncertaintyText(row.then.expanded_m, unit) }}
            </tspan>
          </text>
        </template>
      </g>
    </template>
  </g>
</template>
