<script setup lang="ts">
import type { StepView } from '@/api/generated'
import { stepTerms, termText } from '@/shared/format/terms'
import { unit } from '@/shared/state/preferences'

/** The arithmetic line by line: what, formula, numbers, result, source. */
defineProps<{ steps: StepView[] }>()
</script>

<template>
  <ol class="divide-y divide-rule">
    <li v-for="(step, index) in steps" :key="index" class="py-2">
      <div class="flex flex-wrap items-baseline justify-between gap-x-4">
        <span>{{ step.what }}</span>
        <span class="num font-bold">{{ step.result.symbol }} = {{ termText(step.result, unit) }}</span>
      </div>
      <div class="num text-sm whitespace-normal text-part">{{ step.formula }}</div>
      <div v-if="step.terms.length" class="text-sm text-ink-soft">
        <span
          v-for="term in stepTerms(step, unit)"
          :key="term"
          class="num mr-3 inline-block whitespace-normal"
          >{{ term }}</span
        >
      </div>
      <div v-if="step.source" class="text-xs text-ink-soft">{{ step.source }}</div>
    </li>
  </ol>
</template>
