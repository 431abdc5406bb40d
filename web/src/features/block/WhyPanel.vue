<script setup lang="ts">
import { ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { type HoleView, type HoleWhyView, readHoleBudgets, readWhy } from '@/api/generated'
import { settleWords } from '@/shared/format/settle'
import { useLoaded } from '@/shared/state/useLoaded'
import BudgetDialog from '@/shared/ui/BudgetDialog.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'
import WhyRules from '@/shared/ui/WhyRules.vue'

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
      <WhyRules :rules="why.rules" />
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
