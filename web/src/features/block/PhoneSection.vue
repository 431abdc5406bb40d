<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, HoleView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'

import { sectionPicture } from './section'

/** The chosen hole cut through, drawn for a hand's width: what is read off it stands beside it as text. */
const props = defineProps<{ block: BlockView; hole: HoleView }>()
const digits = useGaugeDigits()
const protrusion = computed(() => props.hole.mean_m ?? props.hole.parts.predicted_m ?? props.hole.expected_m)
const shim = computed(() =>
  props.hole.shims.reduce((sum, one) => sum + Number(one.measured_um ?? one.nominal_um) / 1e6, 0),
)
const picture = computed(() =>
  sectionPicture({
    protrusion: protrusion.value,
    least: props.hole.least_m,
    greatest: props.hole.greatest_m,
    lip: 0,
    shim: shim.value,
    gap: 0,
  }),
)
const size = (metres: number | null | undefined, quantity: 'flange thickness' | 'counterbore depth') =>
  metres == null
    ? 'not measured'
    : lengthText(metres, SIZE_WITH[unit.value], { digits: digits.size(quantity) })
const rows = computed(() => [
  ['greatest', props.hole.greatest_m === null ? '–' : lengthText(props.hole.greatest_m, unit.value)],
  ['least', props.hole.least_m === null ? '–' : lengthText(props.hole.least_m, unit.value)],
  ['ledge', size(props.hole.parts.ledge_m, 'counterbore depth')],
  [
    props.hole.liner ? `flange ${props.hole.liner.mark}` : 'flange',
    size(props.hole.parts.flange_m, 'flange thickness'),
  ],
  ...(shim.value > 0 ? [['shim', lengthText(shim.value, SIZE_WITH[unit.value])]] : []),
])
</script>

<template>
  <figure class="grid min-w-0 content-start gap-1">
    <svg viewBox="0 20 220 278" class="h-28 w-full" role="img" :aria-label="`Section of hole ${hole.number}`">
      <path
        :d="`M4 ${picture.yOf(0)}H96V${picture.ledge}H136V296H4z`"
        class="fill-iron stroke-ink-soft"
        stroke-width="2"
      />
      <path
        v-if="protrusion !== null"
        :d="`M100 ${picture.linerTop}H214V296H140V${picture.flangeUnderside}H100z`"
        class="fill-part-wash stroke-part"
        stroke-width="2.6"
      />
      <rect
        v-if="shim > 0"
        x="100"
        :y="picture.flangeUnderside"
        width="36"
        :height="picture.ledge - picture.flangeUnderside"
        class="fill-act"
      />
      <path
        v-for="limit in [hole.least_m, hole.greatest_m].filter((one) => one !== null)"
        :key="limit"
        :d="`M4 ${picture.yOf(limit)}H96`"
        class="stroke-in"
        stroke-dasharray="8 6"
        stroke-width="2.4"
      />
      <path
        v-if="protrusion !== null"
        :d="`M86 ${picture.yOf(0)}V${picture.linerTop}`"
        class="stroke-act"
        stroke-width="6"
      />
    </svg>
    <dl class="grid grid-cols-[auto_1fr] gap-x-2 text-xs leading-snug">
      <template v-for="[name, value] in rows" :key="name">
        <dt class="text-ink-soft">{{ name }}</dt>
        <dd class="num text-right font-bold">{{ value }}</dd>
      </template>
    </dl>
  </figure>
</template>
