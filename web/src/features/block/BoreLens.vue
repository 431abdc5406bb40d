<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, BoreView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useNarrow } from '@/shared/state/useNarrow'

import BlockDeck from './BlockDeck.vue'
import BoreAside from './BoreAside.vue'
import BoreAtLevel from './BoreAtLevel.vue'
import BoreTable from './BoreTable.vue'
import { boreFaces, type BorePreview, endsOf } from './faces'
import PhoneDeck from './PhoneDeck.vue'
import type { Bores } from './useBores'

/** Every hole's diameters as they lie, at one level between the two limits; all levels in the table below. */
const props = defineProps<{
  block: BlockView
  bores: Bores
  chosen: number | null
  preview: BorePreview | null
}>()
const emit = defineEmits<{
  choose: [hole: number]
  level: [depth_um: string]
  axis: [axis: number]
  act: []
  why: []
  go: [at: { level?: string | null; axis?: number | null }]
}>()
const isNarrow = useNarrow()
const tip = computed(() => (props.preview?.hole === props.chosen ? (props.preview?.value ?? null) : null))

const { data, levels, axis } = props.bores
/** What is typed is shown where it belongs, before it is taken. */
const level = computed(
  () => levels.value.find((one) => one.depth_um === props.preview?.level_um) ?? props.bores.level.value,
)
const text = (bore: BoreView, mean: number) => {
  const nominal = bore.survey.nominal_m
  if (nominal === null) return lengthText(mean, SIZE_WITH[unit.value])
  return lengthText(mean - nominal, unit.value, { signed: true })
}
const faces = computed(() => (data.value ? boreFaces(data.value, level.value, props.preview, text) : []))
const hand = computed(() => (axis.value === null ? null : endsOf(axis.value)[0]))
/** A row of many holes takes the whole width. */
const isLong = computed(() => props.block.card.holes > 4)
const first = computed(() => data.value?.bores[0]?.survey ?? null)
/** The track says where its two circles stand. */
const limits = computed(() => {
  const survey = first.value
  if (!survey || (survey.least_m === null && survey.greatest_m === null))
    return 'the card sets no limits for it'
  const off = (limit: number | null) =>
    limit === null ? '…' : lengthText(limit - (survey.nominal_m ?? 0), unit.value, { signed: true })
  return `dashed least ${off(survey.least_m)}, solid greatest ${off(survey.greatest_m)} ${unit.value} on the diameter`
})
</script>

<template>
  <div v-if="data" class="min-w-0">
    <div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1" role="radiogroup" aria-label="Level">
      <span class="text-sm text-ink-soft">Level</span>
      <button
        v-for="one in levels"
        :key="one.depth_um"
        type="button"
        role="radio"
        class="min-h-9 border px-2 text-sm"
        :class="
          one.depth_um === level?.depth_um ? 'border-ink bg-ink font-bold text-paper' : 'border-rule bg-sheet'
        "
        :aria-checked="one.depth_um === level?.depth_um"
        title="Keys ↑ ↓"
        @click="emit('level', one.depth_um)"
      >
        {{ one.name }}
        <span class="num">{{
          lengthText(one.depth_m, SIZE_WITH[unit], { digits: unit === 'thou' ? 1 : 0 })
        }}</span>
      </button>
      <span class="text-sm text-ink-soft">{{ SIZE_WITH[unit] }} below the deck</span>
    </div>
    <div class="grid items-start gap-x-5" :class="!isLong && 'xl:grid-cols-[minmax(0,7fr)_minmax(0,4fr)]'">
      <div v-if="isNarrow" class="grid grid-cols-[minmax(0,1fr)] gap-2 pt-1">
        <PhoneDeck
          class="order-first"
          :block="block"
          :faces="faces"
          :chosen="chosen"
          @choose="emit('choose', $event)"
        />
        <BoreAside
          v-if="bores.chosen.value"
          :bore="bores.chosen.value"
          :level="level"
          :axis="axis"
          :tip="tip"
          @choose="emit('go', $event)"
          @act="emit('act')"
          @why="emit('why')"
        />
      </div>
      <div v-else class="relative overflow-x-auto">
        <BlockDeck
          class="mt-1 max-h-[33vh] min-w-[26rem]"
          :block="block"
          :faces="faces"
          :chosen="chosen"
          :hour="hand"
          @choose="emit('choose', $event)"
        />
        <div class="flex flex-wrap justify-between gap-x-4 pb-1 text-xs text-ink-soft">
          <span>front at the left, axes clockwise from it</span>
          <span>{{ limits }}</span>
        </div>
      </div>
      <BoreAtLevel
        v-if="bores.chosen.value && level"
        :bore="bores.chosen.value"
        :level="level"
        :axis="axis"
        :wide="isLong"
        @choose="emit('axis', $event)"
      />
    </div>
    <BoreTable
      :bores="data"
      :chosen="bores.chosen.value"
      :level="level"
      @choose="emit('choose', $event)"
      @level="emit('level', $event)"
    />
  </div>
  <p v-else class="py-6 text-ink-soft" aria-busy="true">The bores are being loaded.</p>
</template>
