<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, HoleView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { type ClockLens, clockLensOf } from '@/shared/subjects'
import { bothSizes } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import SmallLength from '@/shared/ui/SmallLength.vue'
import { STATE_TONE } from '@/shared/format/tones'

/** What stands at this position and in this hole so far, and the verdict as soon as there is one. */
const props = defineProps<{ block: BlockView; hole: HoleView; hour: number; lens: ClockLens }>()
const digits = useGaugeDigits()

const here = computed(() => {
  const { quantity } = clockLensOf(props.lens)
  return props.block.readings
    .filter(
      (row) =>
        row.quantity === quantity && row.hole === props.hole.number && row.hour === props.hour && !row.struck,
    )
    .filter((row) => props.lens !== 'protrusion' || row.set_id === props.hole.set_id)
    .map((row) => Number(row.value_um) / 1e6)
})
const mark = computed(() => props.hole.marks.find((one) => one.hour === props.hour && !one.past))
const mean = computed(
  () => here.value.reduce((sum, value) => sum + value, 0) / Math.max(1, here.value.length),
)
const range = computed(() =>
  here.value.length > 1 ? Math.max(...here.value) - Math.min(...here.value) : null,
)
</script>

<template>
  <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 text-lg" aria-label="Numbers">
    <dt class="text-ink-soft">here</dt>
    <dd>
      <template v-if="here.length === 0">not read</template>
      <template v-else-if="lens === 'counterbore'">
        <span class="num whitespace-normal">{{
          bothSizes(mean, unit, { digits: digits.size('counterbore depth') })
        }}</span>, {{ here.length }} read
      </template>
      <template v-else>
        <SmallLength
          :metres="mean"
          :expanded="mark?.expanded_m ?? null"
          :limits="[hole.least_m, hole.greatest_m]"
          with-unit
          both
        />, {{ here.length === 1 ? 'once' : `mean of ${here.length}`
        }}<template v-if="range !== null"
          >, range <SmallLength :metres="range" :signed="false" with-unit
        /></template>
      </template>
    </dd>
    <template v-if="lens === 'protrusion'">
      <dt class="text-ink-soft">hole {{ hole.number }}</dt>
      <dd>
        <template v-if="hole.mean_m !== null">
          mean
          <SmallLength
            :metres="hole.mean_m"
            :expanded="hole.mean_expanded_m"
            :limits="[hole.least_m, hole.greatest_m]"
            with-unit
            both
          />,
        </template>
        <span :class="STATE_TONE[hole.state]"
          ><StateGate :state="hole.state" class="inline align-[-2px]" />
          {{ hole.state === 'in' ? 'in' : hole.reason || hole.state }}</span
        >
      </dd>
    </template>
  </dl>
</template>
