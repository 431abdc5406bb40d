<script setup lang="ts">
import type { MatchRowView } from '@/api/generated'

import type { Scale } from './scale'

/** The window that is wanted, and what both methods found in it, each with its ±. */
defineProps<{ row: MatchRowView; scale: Scale }>()
</script>

<template>
  <svg viewBox="0 0 100 22" preserveAspectRatio="none" class="block h-16 w-full" aria-hidden="true">
    <rect
      v-if="row.least_m !== null && row.greatest_m !== null"
      :x="scale.x(row.least_m)"
      y="0"
      :width="scale.x(row.greatest_m) - scale.x(row.least_m)"
      height="22"
      class="fill-track"
    />
    <template v-for="(one, at) in [row.by_sizes, row.by_feeler]" :key="at">
      <g v-if="one" :class="at === 0 ? 'stroke-part' : 'stroke-ink'">
        <path
          :d="`M${scale.x(one.stated.value_m - one.stated.expanded_m)} ${at * 11 + 5.5}H${scale.x(one.stated.value_m + one.stated.expanded_m)}`"
          stroke-width="3"
          vector-effect="non-scaling-stroke"
        />
        <path
          :d="`M${scale.x(one.stated.value_m)} ${at * 11 + 1}v9`"
          stroke-width="6"
          vector-effect="non-scaling-stroke"
        />
      </g>
    </template>
  </svg>
</template>
