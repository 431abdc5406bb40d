<script setup lang="ts">
import type { FitView, SchoolOfFitView } from '@/api/generated'
import { usePhone } from '@/shared/state/useNarrow'

import FitForce from './FitForce.vue'
import FitLevels from './FitLevels.vue'
import FitPress from './FitPress.vue'
import FitStock from './FitStock.vue'
import FitWalls from './FitWalls.vue'

/** The fit down its depth: walls, press, what comes off and force side by side, on a phone one below the other. */
defineProps<{ fit: FitView; asIs: SchoolOfFitView | null; wanted: SchoolOfFitView | null }>()
const phone = usePhone()
</script>

<template>
  <div v-if="phone" class="grid gap-3">
    <svg v-legible viewBox="2 -50 376 372" class="block w-full">
      <FitLevels :fit="fit" :x="104" />
      <FitWalls :fit="fit" />
    </svg>
    <svg v-legible viewBox="302 -50 370 372" class="block w-full">
      <FitLevels :fit="fit" :x="404" />
      <FitPress :fit="fit" narrow />
    </svg>
    <svg v-legible viewBox="626 -50 376 372" class="block w-full">
      <FitLevels :fit="fit" :x="728" />
      <FitStock :fit="fit" :as-is="asIs" :wanted="wanted" narrow />
    </svg>
    <svg v-if="asIs" v-legible viewBox="1014 -50 230 372" class="block w-full max-w-[18rem]">
      <FitForce :fit="fit" :as-is="asIs" />
    </svg>
  </div>
  <svg v-else v-legible viewBox="0 -50 1240 372" class="block w-full min-w-[62rem]">
    <path d="M0 -6H1240" class="stroke-ink-soft" stroke-width="1.2" />
    <FitLevels :fit="fit" :x="104" />
    <FitWalls :fit="fit" />
    <FitPress :fit="fit" />
    <FitStock :fit="fit" :as-is="asIs" :wanted="wanted" />
    <FitForce v-if="asIs" :fit="fit" :as-is="asIs" />
  </svg>
</template>
