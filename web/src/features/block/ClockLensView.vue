<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView } from '@/api/generated'
import type { Preview } from '@/shared/charts/rings'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import type { ClockLens } from '@/shared/subjects'

import BlockDeck from './BlockDeck.vue'
import { clockFaces } from './faces'
import HoleTable from './HoleTable.vue'

/** What is read round the clock: every hole on the deck, and in numbers. */
const props = defineProps<{
  block: BlockView
  lens: ClockLens
  chosen: number | null
  hour: number | null
  preview: Preview | null
}>()
const emit = defineEmits<{ choose: [hole: number, hour: number | null] }>()
const digits = useGaugeDigits()
const faces = computed(() =>
  clockFaces(props.block, props.lens, props.preview, {
    small: (value, limits) =>
      lengthText(value, unit.value, { signed: true, limits, digits: digits.small('protrusion') }),
    size: (value) => lengthText(value, SIZE_WITH[unit.value], { digits: digits.size('counterbore depth') }),
  }),
)
</script>

<template>
  <div class="relative overflow-x-auto">
    <BlockDeck
      class="mt-1 max-h-[46vh] min-w-[38rem]"
      :block="block"
      :faces="faces"
      :chosen="chosen"
      :hour="hour"
      @choose="emit('choose', $event, null)"
    />
  </div>
  <div class="flex justify-between gap-4 pb-1 text-xs text-ink-soft">
    <span>◂ {{ block.card.numbering }} · 12 h: {{ block.card.twelve_o_clock }}</span>
    <span v-if="lens === 'protrusion'">dashed: least · solid: greatest</span>
    <RouterLink
      class="link"
      title="Key G"
      :to="{
        name: 'grid',
        params: { job: block.job.job_id },
        query: { of: lens === 'protrusion' ? 'protrusion' : 'ledges' },
      }"
      >All at once</RouterLink
    >
  </div>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Every hole in numbers">
    <HoleTable
      :block="block"
      :lens="lens"
      :chosen="chosen"
      @choose="(hole, at) => emit('choose', hole, at)"
    />
  </div>
</template>
