<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import type { BlockView, Quantity } from '@/api/generated'
import { uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** The gauge in hand with the ± of one reading; it opens how readings are taken. */
const props = defineProps<{ block: BlockView; quantity: Quantity }>()
const route = useRoute()
const setup = computed(() => props.block.setups.find((one) => one.quantity === props.quantity))
</script>

<template>
  <RouterLink
    :to="{ query: { ...route.query, open: 'setup' } }"
    class="quiet inline-flex items-center gap-1 px-2 text-sm"
    :class="setup?.cautions.length || setup?.capability === 'wrong tool' ? 'border-unsure text-unsure' : ''"
    :title="
      setup
        ? `Gauge, land, datum and clamp: ${setup.gauge.name}, one reading within ±${uncertaintyText(setup.expanded_m, unit)} ${unit}`
        : 'Gauge, land, datum and clamp'
    "
  >
    <template v-if="setup">
      <b class="max-w-26 truncate">{{ setup.gauge.name }}</b>
      <span class="num">±{{ uncertaintyText(setup.expanded_m, unit) }}</span>
    </template>
    <template v-else>Choose a gauge</template>
  </RouterLink>
</template>
