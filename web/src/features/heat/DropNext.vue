<script setup lang="ts">
import type { NextLinerView } from '@/api/generated'

import { span } from './chart'

/** The next liner with what is left of the heat: until when it has to be out of the cold. */
defineProps<{ others: NextLinerView[]; since: number }>()
</script>

<template>
  <section v-if="others.length" aria-label="The next liner">
    <h2 class="text-lg">Next, with what is left of the heat</h2>
    <ul class="grid gap-x-8 sm:grid-cols-2">
      <li
        v-for="one in others"
        :key="one.hole"
        class="flex items-baseline justify-between gap-3 border-b border-rule py-1"
      >
        <RouterLink class="link" :to="{ name: 'heat-run', params: { hole: String(one.hole) } }"
          >{{ one.liner }} into hole {{ one.hole }}</RouterLink
        >
        <span v-if="one.missing" class="text-unsure">{{ one.missing }}</span>
        <span v-else-if="one.is_open" class="text-in">needs no heat</span>
        <span v-else-if="one.until_s !== null && one.until_s > since" class="num"
          >out within <b>{{ span(one.until_s - since) }}</b></span
        >
        <b v-else class="text-out">heat again, to {{ one.needs_c?.toFixed(0) ?? '…' }} °C and more</b>
      </li>
    </ul>
  </section>
</template>
