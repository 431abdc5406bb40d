<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView } from '@/api/generated'
import { welcome } from '@/shared/state/preferences'
import { tellingHole } from '@/shared/state/standing'

/** A first visit: what this block is, and three things to try on it. */
const props = defineProps<{ block: BlockView }>()
const open = computed(() => tellingHole(props.block.holes))
const job = computed(() => props.block.job.job_id)
</script>

<template>
  <section
    v-if="open"
    aria-label="First visit"
    class="no-print flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule bg-part-wash px-5 py-2"
  >
    <p><b>Try anything:</b> {{ block.job.name }} is invented, everything can be undone.</p>
    <ol class="flex flex-wrap gap-x-5">
      <li>
        1.
        <RouterLink class="link" :to="{ name: 'home', params: { job, hole: String(open.number) } }"
          >what hole {{ open.number }} needs</RouterLink
        >
      </li>
      <li>
        2. type <kbd class="num font-bold">{{ open.number }} 6h 7.5</kbd> and Enter
      </li>
      <li>
        3.
        <RouterLink class="link" :to="{ name: 'bench', params: { job, lens: 'protrusion' } }"
          >measure it at the bench</RouterLink
        >
      </li>
    </ol>
    <button type="button" class="quiet ml-auto text-sm" @click="welcome = 'done'">Put this away</button>
  </section>
</template>
