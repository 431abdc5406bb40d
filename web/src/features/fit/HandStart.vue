<script setup lang="ts">
import { computed } from 'vue'

import type { FitView, GoingInView } from '@/api/generated'
import { lengthText, SIZE_WITH, type SmallUnit } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import { shareText } from './fit'

/** The liner lying on its side: how far it should slide in by hand, what is right, and how far it was tried. */
const props = defineProps<{ fit: FitView; going: GoingInView; length: number }>()
const phone = usePhone()
const wide = computed(() => (phone.value ? 336 : 540))
const x = (depth: number) => (depth / props.length) * wide.value
const tried = computed(() => props.fit.tried)
/** On a phone words stand below the drawing, one line after the other. */
const said = computed(() =>
  phone.value ? { x: 0, y: 58 } : { x: Math.min(x(tried.value?.inserted_m ?? 0) + 12, 330), y: 52 },
)
const deep = (depth: number, of: SmallUnit = unit.value) =>
  `${lengthText(depth, SIZE_WITH[of], { digits: of === 'thou' ? 2 : 0 })} ${SIZE_WITH[of]}`
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 -4 ${wide + 4} ${phone ? 88 : 62}`"
    class="block w-full"
    role="img"
    :aria-label="`Starts by hand to ${deep(going.by_hand_m.middle)}`"
  >
    <rect x="1" y="2" :width="wide" height="26" class="fill-part-wash stroke-part" stroke-width="1.5" />
    <rect :x="x(length / 4)" y="2" :width="x(length / 12)" height="26" class="fill-track" />
    <path :d="`M${x(length / 4)} -2V32`" class="stroke-ink" stroke-width="1.8" stroke-dasharray="4 3" />
    <path :d="`M${x(length / 3)} -2V32`" class="stroke-ink" stroke-width="1.8" />
    <path
      :d="`M${x(going.by_hand_m.low)} 15H${x(going.by_hand_m.high)}M${x(going.by_hand_m.low)} 9v12M${x(going.by_hand_m.high)} 9v12`"
      class="stroke-part"
      stroke-width="2"
    />
    <circle :cx="x(going.by_hand_m.middle)" cy="15" r="6" class="fill-part" />
    <text
      :x="phone ? 0 : wide - 6"
      :y="phone ? 78 : 20"
      :text-anchor="phone ? 'start' : 'end'"
      font-size="14"
      class="fill-ink-soft"
    >
      liner {{ fit.liner }}, {{ deep(length) }} long, foot first
    </text>
    <template v-if="tried">
      <path :d="`M${x(tried.inserted_m)} 31l6 11h-12z`" class="fill-ink" />
      <text :x="said.x" :y="said.y" font-size="14" class="fill-ink">
        tried{{ tried.held ? `, ${tried.held}` : '' }}: {{ deep(tried.inserted_m) }},
        {{ shareText(tried.share) }}
        <tspan :class="tried.as_expected === false ? 'fill-unsure font-bold' : 'fill-ink-soft'">
          {{
            tried.as_expected === null ? '' : tried.as_expected ? 'as expected' : 'not as the readings say'
          }}
        </tspan>
      </text>
    </template>
    <text v-else x="0" :y="phone ? 58 : 52" font-size="14" class="fill-ink-soft">
      a quarter to a third of its length is right, by common practice
    </text>
  </svg>
</template>
