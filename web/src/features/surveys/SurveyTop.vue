<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type BlockView, listFeatures } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { useLoaded } from '@/shared/state/useLoaded'
import BenchHead from '@/shared/ui/BenchHead.vue'
import SourceBadge from '@/shared/ui/SourceBadge.vue'

import type { SurveyBench } from '@/shared/state/useSurvey'

/** The way out, every part of this feature with its state, and how many places are missing. */
const props = defineProps<{ block: BlockView; bench: SurveyBench }>()
const { survey, missing, quantity, partKey } = props.bench
const { data } = useLoaded(() => ask(listFeatures({ path: { job_id: props.block.job.job_id } })))
/** The part at hand is as fresh as its survey; the others are as they were when this view opened. */
const parts = computed(() => {
  const listed = data.value?.features.find((one) => one.quantity === quantity.value)?.parts ?? []
  return listed.map((one) => (one.key === partKey.value && survey.value ? survey.value.part : one))
})
/** The head names the feature: here its number, letter or mark is enough. */
const shortName = (key: string) => key.slice(key.indexOf('-') + 1)
</script>

<template>
  <BenchHead
    :to="{ name: 'measure', params: { job: block.job.job_id } }"
    out="Measuring"
    :job="block.job.name"
    :what="`${quantity}${survey ? `, ${survey.part.title}` : ''}`"
    places="Parts"
    clock="measure"
  >
    <template v-if="parts.length > 1">
      <RouterLink
        v-for="part in parts"
        :key="part.key"
        :to="{ name: 'survey', params: { job: block.job.job_id, quantity, part: part.key } }"
        class="flex min-h-11 items-center justify-center gap-1 rounded border px-2 whitespace-nowrap"
        :class="part.key === partKey ? 'border-act bg-act-wash' : 'border-rule'"
        :aria-label="`${part.title}: ${part.state}`"
      >
        <b>{{ shortName(part.key) }}</b> <StateGate :state="part.state" />
      </RouterLink>
    </template>
    <template #below>
      <p v-if="survey" class="pt-1 text-sm text-ink-soft">
        {{ survey.places.length - missing.length }} of {{ survey.places.length }} places read<template
          v-if="!survey.pattern.on_card && survey.pattern_kind !== 'one place'"
        >
          · the pattern is proposed: the card names none <SourceBadge status="common practice"
        /></template>
      </p>
    </template>
  </BenchHead>
</template>
