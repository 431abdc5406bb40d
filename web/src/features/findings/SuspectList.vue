<script setup lang="ts">
import type { SuspectsView } from '@/api/generated'

/** From each symptom to what may be behind it, the likeliest first, and what to measure for it. */
defineProps<{ suspects: SuspectsView[]; jobId: string }>()
const where = (holes: number[]) =>
  holes.length ? ` at ${holes.length > 1 ? 'holes' : 'hole'} ${holes.join(', ')}` : ''
</script>

<template>
  <section aria-label="Suspects">
    <h2 class="border-b border-ink text-lg">What to measure first</h2>
    <p v-if="suspects.length === 0" class="py-2 text-ink-soft">
      No symptom is told of. Write one down, or the complaint in the customer's own words.
    </p>
    <article v-for="one in suspects" :key="one.symptom" class="border-b border-rule py-2">
      <h3>
        {{ one.symptom }}<span class="font-normal text-ink-soft">, {{ one.told }}{{ where(one.holes) }}</span>
      </h3>
      <ol class="list-decimal pl-5">
        <li v-for="suspect in one.suspects" :key="suspect.what">
          {{ suspect.what }}: <span class="text-ink-soft">{{ suspect.shows }}</span>
          <span class="block text-sm">
            <template v-for="(quantity, at) in suspect.quantities" :key="quantity"
              ><template v-if="at"> · </template
              ><RouterLink
                class="link"
                :to="{ name: 'measure', params: { job: jobId }, hash: `#${quantity}` }"
                >{{ quantity }}</RouterLink
              ></template
            >
            <span :class="suspect.begun ? 'text-ink-soft' : 'text-unsure'">
              {{ suspect.begun ? `, ${suspect.begun} of ${suspect.of} begun` : ', nothing read yet' }}</span
            >
          </span>
        </li>
      </ol>
    </article>
  </section>
</template>
