<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { readSurveyWhy, type SurveyView, type SurveyWhyView } from '@/api/generated'
import { useLoaded } from '@/shared/state/useLoaded'
import DialogFrame from '@/shared/ui/DialogFrame.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'
import WhyRules from '@/shared/ui/WhyRules.vue'

/** The state of a survey opened: every rule with its limit and source, how it was read, then the sums. */
const props = defineProps<{ survey: SurveyView; jobId: string }>()
const open = ref(false)
/** Without a limit nothing is in or out: it is read. */
const title = computed(() => {
  const { title: part, state } = props.survey.part
  if (state === 'in' && props.survey.rules.length === 0) return `What is known of ${part}`
  return `Why ${part} is ${state === 'cannot tell' ? 'undecided' : state}`
})
const path = () => ({ job_id: props.jobId, quantity: props.survey.quantity, part: props.survey.part.key })
const { data: why, refusal } = useLoaded<SurveyWhyView | null>(
  () => (open.value ? ask(readSurveyWhy({ path: path() })) : Promise.resolve(null)),
  () => `${open.value} ${props.survey.quantity} ${props.survey.part.key} ${props.survey.event}`,
)
</script>

<template>
  <button type="button" class="link" @click="open = true">Why</button>
  <DialogFrame :open="open" :title="title" @close="open = false">
    <RefusalNote :refusal="refusal" />
    <template v-if="why">
      <p class="font-bold">{{ why.reason }}</p>
      <p v-if="why.how" class="pb-2 text-sm text-ink-soft">{{ why.how }}</p>
      <p v-if="why.rules.length === 0">The card sets no limit for the {{ survey.quantity }}.</p>
      <WhyRules :rules="why.rules" :sizes="survey.is_size" />
      <h3 v-if="why.steps.length" class="pt-3 text-base">The sums</h3>
      <TrailSteps :steps="why.steps" />
    </template>
  </DialogFrame>
</template>
