<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type BlockView, stampPart, type SurveyView } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useForm } from '@/shared/ui/useForm'
import ZeroLook from '@/shared/ui/ZeroLook.vue'
import { featureOf } from '@/shared/state/catalogue'

import SurveySetup from './SurveySetup.vue'
import type { SurveyBench } from '@/shared/state/useSurvey'
import WarmthPanel from './WarmthPanel.vue'

/** How it is read, how warm everything is, whether the zero still stands, and the letters on the part. */
const props = defineProps<{ survey: SurveyView; bench: SurveyBench; jobId: string; block: BlockView }>()
/** The form in which the gauge is chosen stands open. */
const open = defineModel<boolean>('open', { required: true })
const letters = ref('')
const zero = ref<{ focus: () => void } | null>(null)
defineExpose({ lookAtZero: () => zero.value?.focus() })
const { refusal, send } = useForm()
const { liner } = props.bench

function stamp(): Promise<void> {
  return send(async () => {
    const path = { job_id: props.jobId, quantity: props.survey.quantity, part: props.survey.part.key }
    await ask(stampPart({ path, body: { letters: letters.value, person_id: personId.value } }))
    letters.value = ''
    await props.bench.load()
  })
}
async function changed(): Promise<void> {
  open.value = false
  await props.bench.load()
}
</script>

<template>
  <aside
    class="grid grid-cols-[minmax(0,1fr)] content-start gap-2 border-t border-rule pt-2"
    aria-label="Circumstances"
  >
    <ul v-if="survey.setup?.cautions.length" class="text-unsure">
      <li v-for="caution in survey.setup.cautions" :key="caution">{{ caution }}</li>
    </ul>
    <ZeroLook
      v-if="survey.gauge_has_zero"
      ref="zero"
      :quantity="survey.quantity"
      :job-id="jobId"
      @looked="bench.load()"
    />
    <WarmthPanel :survey="survey" :bench="bench" :job-id="jobId" />
    <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
      <button v-if="survey.setup" type="button" class="quiet min-h-11" @click="open = true">
        Read it another way
      </button>
      <label v-if="featureOf(survey.quantity)?.asks_liner" class="text-sm text-ink-soft"
        >liner
        <select v-model="liner" class="rounded border border-rule bg-sheet px-2 py-2 text-ink">
          <option value="">choose</option>
          <option v-for="one in block.liners" :key="one.liner.mark" :value="one.liner.mark">
            {{ one.liner.mark }}
          </option>
        </select>
      </label>
      <form class="flex items-center gap-2" @submit.prevent="stamp">
        <label class="text-sm text-ink-soft" for="stamp">letters on it</label>
        <b v-if="survey.stamp" class="num text-lg">{{ survey.stamp }}</b>
        <input
          id="stamp"
          v-model="letters"
          class="field w-20"
          maxlength="20"
          :placeholder="survey.stamp ? 'anew' : 'none'"
        />
        <button v-if="letters.trim()" type="submit" class="quiet min-h-11">Note them</button>
      </form>
      <p v-if="refusal" class="text-out">{{ refusal.message }}</p>
    </div>
    <SurveySetup :open="open" :survey="survey" :job-id="jobId" @close="open = false" @changed="changed" />
  </aside>
</template>
