<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, HoleView } from '@/api/generated'
import type { Preview } from '@/shared/charts/rings'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import type { ClockLens } from '@/shared/subjects'

import { clockFaces } from './faces'
import GaugeChip from './GaugeChip.vue'
import HoleNeeds from './HoleNeeds.vue'
import HoleSummary from './HoleSummary.vue'
import HoleTable from './HoleTable.vue'
import PhoneDeck from './PhoneDeck.vue'
import PhoneHole from './PhoneHole.vue'
import PhoneSection from './PhoneSection.vue'

/** The block on a small screen, or enlarged: the deck, the chosen hole and what it needs before anything else. */
const props = defineProps<{
  block: BlockView
  lens: ClockLens
  hole: HoleView | null
  hour: number | null
  preview: Preview | null
}>()
const emit = defineEmits<{ choose: [hole: number, hour: number | null]; act: []; why: [] }>()
const digits = useGaugeDigits()
const faces = computed(() =>
  clockFaces(props.block, props.lens, props.preview, {
    small: (value, limits) =>
      lengthText(value, unit.value, { signed: true, limits, digits: digits.small('protrusion') }),
    size: (value) => lengthText(value, SIZE_WITH[unit.value], { digits: digits.size('counterbore depth') }),
  }),
)
const face = computed(() => faces.value.find((one) => one.number === props.hole?.number) ?? null)
</script>

<template>
  <div class="grid gap-2">
    <PhoneDeck
      :block="block"
      :faces="faces"
      :chosen="hole?.number ?? null"
      @choose="emit('choose', $event, null)"
    />
    <template v-if="hole && face">
      <div class="grid gap-2 [@media(height<35rem)]:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
        <h2 class="text-lg leading-tight">
          Hole {{ hole.number }}
          <span :class="STATE_TONE[hole.state]">{{
            hole.state === 'in' ? 'is in' : hole.reason || hole.state
          }}</span>
        </h2>
        <div class="grid grid-cols-[3fr_2fr] items-center gap-3 [@media(height<35rem)]:hidden">
          <PhoneHole :hole="hole" :face="face" :lens="lens" :hour="hour" />
          <PhoneSection :block="block" :hole="hole" />
        </div>
        <HoleNeeds compact :number="hole.number" :need="hole.need" @act="emit('act')" @why="emit('why')" />
      </div>
      <HoleSummary :hole="hole" :lens="lens" />
    </template>
    <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Every hole in numbers">
      <HoleTable
        :block="block"
        :lens="lens"
        :chosen="hole?.number ?? null"
        @choose="(number, at) => emit('choose', number, at)"
      />
    </div>
    <p class="flex items-center gap-2">
      <span class="text-sm text-ink-soft">Read with</span>
      <GaugeChip :block="block" :quantity="lens === 'protrusion' ? 'protrusion' : 'counterbore depth'" />
    </p>
    <p class="text-xs text-ink-soft">
      ◂ {{ block.card.numbering }} · 12 h: {{ block.card.twelve_o_clock }} · dashed: least · solid: greatest
    </p>
  </div>
</template>
