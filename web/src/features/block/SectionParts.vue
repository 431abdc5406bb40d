<script setup lang="ts">
import type { HoleView } from '@/api/generated'
import { exactSmall, sizeText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'

import * as s from './section'

/** Below the break: what flange, shim and ledge measure. */
defineProps<{ hole: HoleView; shim: number; gap: number }>()
const digits = useGaugeDigits()
</script>

<template>
  <g>
    <text :x="s.LINER_RIGHT + 8" :y="s.BREAK_Y + 30" class="fill-ink-soft" font-size="13">
      {{ hole.liner ? `flange of ${hole.liner.mark}` : 'no liner in it' }}
    </text>
    <text
      v-if="hole.parts.flange_m !== null"
      :x="s.LINER_RIGHT + 8"
      :y="s.BREAK_Y + 47"
      class="fill-ink font-mono"
      font-size="13"
    >
      {{ sizeText(hole.parts.flange_m, unit, null, { digits: digits.size('flange thickness') }) }}
    </text>
    <text
      v-else-if="hole.liner"
      :x="s.LINER_RIGHT + 8"
      :y="s.BREAK_Y + 47"
      class="fill-unsure"
      font-size="13"
    >
      not measured
    </text>
    <text v-if="shim > 0" :x="s.LINER_RIGHT + 8" :y="s.BREAK_Y + 70" class="fill-act" font-size="13">
      shim {{ sizeText(shim, unit) }}
    </text>
    <text x="18" :y="s.BREAK_Y + 34" class="fill-ink-soft" font-size="13">flange rests at</text>
    <text
      x="18"
      :y="s.BREAK_Y + 51"
      class="font-mono"
      :class="hole.parts.ledge_m === null ? 'fill-unsure' : 'fill-ink'"
      font-size="13"
    >
      {{
        hole.parts.ledge_m === null
          ? 'not measured'
          : sizeText(hole.parts.ledge_m, unit, null, { digits: digits.size('counterbore depth') })
      }}
    </text>
    <text v-if="gap > 2e-6" x="18" :y="s.BREAK_Y + 70" class="fill-out" font-size="13">
      {{ exactSmall(gap, unit) }} {{ unit }} below its highest
    </text>
  </g>
</template>
