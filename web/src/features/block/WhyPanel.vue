<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type HoleView, type HoleWhyView, readWhy } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import SmallLength from '@/shared/ui/SmallLength.vue'
import SourceBadge from '@/shared/ui/SourceBadge.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'

/** The state of one hole opened: every rule with its limit and source, then the sums. */
const props = defineProps<{ hole: HoleView; event: number }>()
const emit = defineEmits<{ close: [] }>()
const why = shallowRef<HoleWhyView | null>(null)
const refusal = ref<Refusal | null>(null)

watch(
  () => [props.hole.hole_id, props.event] as const,
  async ([id]) => {
    try {
      const answer = await ask(readWhy({ path: { hole_id: id } }))
      if (id === props.hole.hole_id) why.value = answer
      refusal.value = null
    } catch (error) {
      refusal.value = asRefusal(error)
    }
  },
  { immediate: true },
)
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
        <li v-for="(rule, index) in why.rules" :key="index" class="border-b border-rule py-1.5">
          <div class="flex items-baseline gap-2">
            <StateGate :state="rule.result.state" class="shrink-0 self-center" />
            <span class="flex-1">{{ rule.result.rule }} {{ rule.result.where }}</span>
            <SmallLength
              :metres="rule.result.value_m"
              :expanded="rule.result.expanded_m"
              :limits="[rule.result.least_m, rule.result.greatest_m]"
              with-unit
            />
          </div>
          <div v-for="limit in rule.limits" :key="limit.name" class="pl-9 text-ink-soft">
            {{ limit.name }} <span class="num">{{ limit.typed }}</span>
            <SourceBadge class="ml-2" :status="limit.status" :source="limit.source" />
          </div>
          <p v-if="rule.result.state !== rule.result.guarded" class="pl-9 text-unsure">
            By the card's simple acceptance; beyond the uncertainty: {{ rule.result.guarded }}.
          </p>
        </li>
      </ul>
      <h3 class="pt-3 text-base">The sums</h3>
      <TrailSteps :steps="why.steps" />
    </template>
  </section>
</template>
