<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import {
  type HoleView,
  type HoleWhyView,
  type LimitUsedView,
  readHoleBudgets,
  readWhy,
  type RuleView,
} from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { settleWords } from '@/shared/format/settle'
import { useLoaded } from '@/shared/state/useLoaded'
import BudgetDialog from '@/shared/ui/BudgetDialog.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import SmallLength from '@/shared/ui/SmallLength.vue'
import SourceBadge from '@/shared/ui/SourceBadge.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'

/** The state of one hole opened: every rule with its limit and source, then the sums. */
const props = defineProps<{ hole: HoleView; event: number }>()
const emit = defineEmits<{ close: [] }>()
const {
  data: why,
  refusal,
  load,
} = useLoaded<HoleWhyView>(
  () => ask(readWhy({ path: { hole_id: props.hole.hole_id } })),
  () => props.hole.hole_id,
)
watch(
  () => props.event,
  () => void load(),
)
const trust = ref(false)
const budgets = () => ask(readHoleBudgets({ path: { hole_id: props.hole.hole_id } }))

/** Results of one rule together, its limits once. */
const groups = computed(() => {
  const byRule = new Map<string, { rule: string; limits: LimitUsedView[]; results: RuleView[] }>()
  for (const one of why.value?.rules ?? []) {
    const group = byRule.get(one.result.rule) ?? { rule: one.result.rule, limits: one.limits, results: [] }
    group.results.push(one.result)
    byRule.set(one.result.rule, group)
  }
  return [...byRule.values()]
})
</script>

<template>
  <section aria-label="Why">
    <div class="flex items-center justify-between gap-3 border-b border-rule pb-2">
      <h2 class="text-lg">
        Why hole {{ hole.number }} is {{ hole.state === 'cannot tell' ? 'undecided' : hole.state }}
      </h2>
      <button type="button" class="quiet text-sm" @click="emit('close')">Close</button>
    </div>
    <RefusalNote :refusal="refusal" />
    <template v-if="why">
      <p v-if="why.reason" class="py-2 font-bold">{{ why.reason }}</p>
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
            <SmallLength
              :metres="result.value_m"
              :expanded="result.expanded_m"
              :limits="[result.least_m, result.greatest_m]"
              with-unit
            />
            <span v-if="result.state !== result.guarded" class="text-unsure"
              >beyond ±: {{ result.guarded }}</span
            >
          </div>
        </li>
      </ul>
      <template v-if="why.settling.length">
        <h3 class="pt-2 text-base">What would settle it</h3>
        <ul class="text-sm">
          <li v-for="one in why.settling" :key="one.rule + one.where">{{ settleWords(one) }}</li>
        </ul>
      </template>
      <button type="button" class="link min-h-9" @click="trust = true">How far these can be trusted</button>
      <BudgetDialog
        :open="trust"
        :title="`How far hole ${hole.number} can be trusted`"
        :fetch="budgets"
        @close="trust = false"
      />
      <h3 class="pt-3 text-base">The sums</h3>
      <TrailSteps :steps="why.steps" />
    </template>
  </section>
</template>
