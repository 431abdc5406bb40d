<script setup lang="ts">
import { computed } from 'vue'

import type { LimitUsedView, RuleView, RuleWhy } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { sizeText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import SmallLength from './SmallLength.vue'
import SourceBadge from './SourceBadge.vue'

/** Every rule with its limits and where they come from, and how each value stands to them. */
const props = defineProps<{ rules: readonly RuleWhy[]; sizes?: boolean }>()

/** Results of one rule together, its limits once. */
const groups = computed(() => {
  const byRule = new Map<string, { rule: string; limits: LimitUsedView[]; results: RuleView[] }>()
  for (const one of props.rules) {
    const group = byRule.get(one.result.rule) ?? { rule: one.result.rule, limits: one.limits, results: [] }
    group.results.push(one.result)
    byRule.set(one.result.rule, group)
  }
  return [...byRule.values()]
})
/** A single reading of a size is written as one. */
const isSize = (result: RuleView) => props.sizes === true && result.kind === 'reading'
</script>

<template>
  <ul class="text-sm">
    <li v-for="group in groups" :key="group.rule" class="border-b border-rule py-2">
      <b>{{ group.rule }}</b>
      <div v-for="limit in group.limits" :key="limit.name" class="text-ink-soft">
        {{ limit.name }} <span class="num text-ink">{{ limit.typed }}</span>
        <SourceBadge class="ml-2" :status="limit.status" :source="limit.source" />
      </div>
      <div v-for="(result, index) in group.results" :key="index" class="flex items-center gap-2 pt-0.5">
        <StateGate :state="result.state" class="shrink-0" />
        <span class="flex-1">{{ result.where }}</span>
        <span v-if="isSize(result)" class="num">{{ sizeText(result.value_m, unit, result.expanded_m) }}</span>
        <SmallLength
          v-else
          :metres="result.value_m"
          :expanded="result.expanded_m"
          :limits="[result.least_m, result.greatest_m]"
          with-unit
        />
        <span v-if="result.state !== result.guarded" class="text-unsure">beyond ±: {{ result.guarded }}</span>
      </div>
    </li>
  </ul>
</template>
