<script setup lang="ts">
import type { TrapMetView } from '@/api/generated'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** The traps that were stepped into: where the warning would have come, what it would have said. */
defineProps<{ traps: TrapMetView[] }>()
</script>

<template>
  <section v-if="traps.length" aria-label="Traps">
    <h2 class="font-bold">Here a job would have warned you</h2>
    <ul class="mt-1 grid gap-2">
      <li v-for="met in traps" :key="met.trap + met.after_move" class="border-l-4 border-out py-0.5 pl-3">
        <p class="font-bold">
          {{ met.name }} <span class="num text-sm font-normal text-ink-soft">{{ met.trap }}</span>
        </p>
        <p><PhraseText :phrase="met.words" /></p>
        <p class="text-sm text-ink-soft">
          {{ met.after_move < 0 ? 'before the first move' : `after move ${met.after_move + 1}` }} · what
          catches it: {{ met.check }}
        </p>
      </li>
    </ul>
  </section>
</template>
