<script setup lang="ts">
import type { JudgedView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** What it was worth, line by line: yours, the truth, how far off, what would still have done. */
defineProps<{ judged: JudgedView }>()
</script>

<template>
  <section aria-label="Score">
    <table class="w-full text-sm">
      <caption class="text-left">
        <span class="text-base font-bold">Score</span>
        <span class="num ml-3 text-xl font-bold">{{ judged.points }} of {{ judged.of }}</span>
      </caption>
      <thead class="text-ink-soft">
        <tr class="border-b-2 border-ink-soft text-right">
          <th class="text-left font-normal" colspan="2">what</th>
          <th class="px-1 font-normal">yours</th>
          <th class="px-1 font-normal">truth</th>
          <th class="px-1 font-normal max-sm:hidden">off</th>
          <th class="px-1 font-normal max-sm:hidden">at most</th>
          <th class="pl-1 font-normal">points</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in judged.scored"
          :key="row.name"
          class="border-b border-rule text-right align-top"
          :class="row.points < row.of ? 'bg-act-wash' : ''"
        >
          <td class="w-8 py-1.5"><StateGate :state="row.points === row.of ? 'in' : 'out'" /></td>
          <td class="py-1 text-left" :class="row.points < row.of && 'font-bold text-out'">{{ row.name }}</td>
          <td class="px-1 py-1"><PhraseText :phrase="row.yours" /></td>
          <td class="px-1 py-1"><PhraseText :phrase="row.truth" /></td>
          <td class="px-1 py-1 max-sm:hidden"><PhraseText :phrase="row.off" /></td>
          <td class="px-1 py-1 text-ink-soft max-sm:hidden"><PhraseText :phrase="row.at_most" /></td>
          <td class="num py-1 pl-1 font-bold">{{ row.points }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
