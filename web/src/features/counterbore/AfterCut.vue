<script setup lang="ts">
import { computed } from 'vue'

import type { HoleView } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { lengthText, SIZE_WITH, sizeText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import SmallLength from '@/shared/ui/SmallLength.vue'

/** Cut, not fitted yet: what the ledge measures and where the liner will stand if the parts are right. */
const props = defineProps<{ hole: HoleView; linerMark: string }>()
const shim = computed(() => Number(props.hole.last_cut?.shim_um ?? 0) / 1e6)
const measured = computed(() => props.hole.parts.ledge_depths.length > 0)
</script>

<template>
  <div>
    <p class="py-2 text-2xl font-bold">
      Cut to {{ hole.last_cut?.typed }}; fit {{ linerMark }} on a
      <span class="num">{{ lengthText(shim, SIZE_WITH[unit]) }}</span> {{ SIZE_WITH[unit] }} shim
    </p>
    <p v-if="hole.expected_m !== null" class="text-lg">
      The parts then give
      <SmallLength
        class="font-bold"
        :metres="hole.expected_m"
        :expanded="hole.expected_expanded_m"
        with-unit
      />,
      {{
        measured
          ? 'with the ledge as measured since the cut'
          : 'by the stop alone: the ledge is not measured yet'
      }}. It is proved when it is read.
    </p>
    <ul v-if="measured" class="mt-3 flex flex-wrap gap-x-8 gap-y-1">
      <li v-for="depth in hole.parts.ledge_depths" :key="depth.hour">
        <span class="text-ink-soft">{{ hourText(depth.hour) }}</span>
        <span class="num ml-2">{{ sizeText(depth.depth_m, unit) }}</span>
      </li>
    </ul>
  </div>
</template>
