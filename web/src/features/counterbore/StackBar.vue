<script setup lang="ts">
import { computed } from 'vue'

import type { PlannedCut } from '@/api/generated'
import { exactSmall } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** What the ± by the stop is made of, part by part; beside it every part at its worst at once. */
const props = defineProps<{ cut: PlannedCut }>()
const FILLS = ['fill-part', 'fill-ink-soft', 'fill-unsure', 'fill-in', 'fill-rule', 'fill-act']
const parts = computed(() => {
  let at = 0
  return props.cut.stack.map((one, place) => {
    const from = at
    at += one.share
    return { ...one, from, fill: FILLS[place % FILLS.length] }
  })
})
const small = (metres: number) => `${exactSmall(metres, unit.value)} ${unit.value}`
</script>

<template>
  <section aria-label="Stack-up" class="pt-4">
    <h2 class="text-base">
      What is in ±{{ small(cut.by_stop_expanded_m) }}
      <span class="font-normal text-ink-soft"
        >every part at its worst at once: ±{{ small(cut.worst_case_m) }}</span
      >
    </h2>
    <svg viewBox="0 0 100 6" preserveAspectRatio="none" class="block h-6 w-full" aria-hidden="true">
      <rect
        v-for="one in parts"
        :key="one.name"
        :x="one.from * 100"
        y="0"
        :width="one.share * 100"
        height="6"
        :class="one.fill"
      />
    </svg>
    <ul class="flex flex-wrap gap-x-5 text-sm">
      <li v-for="one in parts" :key="one.name" class="flex items-center gap-1.5">
        <svg v-legible viewBox="0 0 10 10" class="size-3" aria-hidden="true">
          <rect width="10" height="10" :class="one.fill" />
        </svg>
        {{ one.name }} <b class="num">±{{ small(one.half_width_m) }}</b>
        <span class="text-ink-soft">{{ Math.round(one.share * 100) }} %</span>
      </li>
    </ul>
  </section>
</template>
