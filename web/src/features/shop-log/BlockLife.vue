<script setup lang="ts">
import type { OpeningView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** The life of a block: every time it was opened, what its bores were given, how deep its ledges lie since. */
defineProps<{ serial: string; openings: readonly OpeningView[] }>()
const size = (metres: number) => `${lengthText(metres, unit.value)} ${unit.value}`
</script>

<template>
  <section class="mt-4 border-2 border-ink px-4 py-3" :aria-label="`Life of block ${serial}`">
    <h2 class="text-lg">
      Block {{ serial }}: opened {{ openings.length }} time{{ openings.length === 1 ? '' : 's' }} here
    </h2>
    <article v-for="one in openings" :key="one.job_id" class="border-t border-rule py-2">
      <b>{{ one.opened_at.slice(0, 10) }}</b>
      <RouterLink class="link ml-2" :to="{ name: 'home', params: { job: one.job_id } }"
        >{{ one.name }}, job {{ one.number }}</RouterLink
      >
      <p class="text-sm text-ink-soft">{{ one.complaint }}</p>
      <p v-if="one.steps.length" class="text-sm">
        Bores:
        <template v-for="[hole, choice, step] in one.steps" :key="hole"
          >{{ hole }} {{ choice }}<template v-if="step !== null"> +{{ size(step) }}</template
          >;
        </template>
      </p>
      <p v-if="one.cuts.length" class="text-sm">
        Ledges cut to:
        <template v-for="[hole, depth] in one.cuts" :key="hole">{{ hole }} {{ size(depth) }}; </template>
      </p>
    </article>
  </section>
</template>
