<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { listGauges, listGaugeStudies, planGaugeStudy, type StudyView } from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import { whenText } from '@/shared/format/time'
import { people } from '@/shared/state/people'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Studies of gauges in the hands that use them: those under way, those done, and planning one more. */
const router = useRouter()
const { data, refusal } = useLoaded(() => ask(listGaugeStudies()))
const gauges = useLoaded(() => ask(listGauges()))
const form = useForm()
const gauge = ref('')
const what = ref('')
const tolerance = ref('')
const parts = ref('5')
const trials = ref('2')
const chosen = ref<string[]>([])
const gaugeChoices = computed(() => [
  { value: '', label: 'choose' },
  ...(gauges.data.value ?? []).map((one) => ({ value: one.gauge_id, label: one.name })),
])
const readings = computed(() => Number(parts.value) * Number(trials.value) * chosen.value.length || 0)

function state(study: StudyView): string {
  if (!study.result) return `${study.read} of ${study.of} read`
  const model = study.result.full_holds ? study.result.full : study.result.pooled
  const share =
    model.percent_of_tolerance === null
      ? `${Math.round(model.percent_of_total)} % of all spread`
      : `${Math.round(model.percent_of_tolerance)} % of the window`
  return study.adopted ? `${share}, taken over by the gauge` : share
}
function plan(confirmed = false): Promise<void> {
  return form.send(async () => {
    const made = await ask(
      planGaugeStudy({
        body: {
          gauge_id: gauge.value,
          what: what.value,
          tolerance: tolerance.value,
          bare_unit: bareFor(false, unit.value),
          parts: Number(parts.value) || 0,
          trials: Number(trials.value) || 0,
          people: chosen.value,
          confirmed,
          person_id: personId.value,
        },
      }),
    )
    await router.push({ name: 'study', params: { study: made.gauge_study_id } })
  })
}
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-3">
    <ShopNav />
    <div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_24rem]">
      <section aria-label="Gauge studies">
        <h1 class="text-xl">Gauge studies</h1>
        <p class="text-ink-soft">
          A few parts, read blind by the people who use the gauge, in random order. It shows what is the
          gauge, what is the hand, and what is the part.
        </p>
        <RefusalNote :refusal="refusal" />
        <p v-if="data?.length === 0" class="py-3">
          No study yet: plan one at the right, with parts that spread over the tolerance.
        </p>
        <ul v-if="data?.length" class="mt-2">
          <li v-for="study in data" :key="study.gauge_study_id" class="border-b border-rule">
            <RouterLink
              :to="{ name: 'study', params: { study: study.gauge_study_id } }"
              class="grid min-h-12 grid-cols-[1fr_auto] items-center gap-4 py-2"
            >
              <span
                ><b class="text-lg">{{ study.gauge.name }}</b> {{ study.what }}
                <span class="block text-sm text-ink-soft"
                  >{{ study.parts }} parts × {{ study.people.map((one) => one.name).join(', ') }} ×
                  {{ study.trials }} trials · {{ whenText(study.planned_at) }}</span
                ></span
              >
              <span :class="study.result ? '' : 'text-act'">{{ state(study) }}</span>
            </RouterLink>
          </li>
        </ul>
      </section>
      <form class="grid content-start gap-3" aria-label="Plan a study" @submit.prevent="plan()">
        <h2 class="text-lg">Plan a study</h2>
        <RefusalChoices
          :refusal="form.refusal.value"
          @answer="(one) => form.answer(one, (_, said) => (tolerance = said), plan)"
        />
        <ChoiceField v-model="gauge" label="Gauge" :choices="gaugeChoices" path="gauge_id" />
        <TextField
          v-model="what"
          label="What it decides"
          path="what"
          hint="such as protrusion of the ferry"
        />
        <TextField
          v-model="tolerance"
          label="Width of that window"
          path="tolerance"
          :bare="bareFor(false, unit)"
          hint="empty: none is known"
        />
        <div class="grid grid-cols-2 gap-3">
          <TextField v-model="parts" label="Parts" path="parts" whole hint="2 to 20; ten is usual" />
          <TextField v-model="trials" label="Trials each" path="trials" whole hint="2 to 10" />
        </div>
        <fieldset>
          <legend class="text-sm text-ink-soft">People, in turn</legend>
          <label v-for="one in people" :key="one.person_id" class="mr-5 inline-block min-h-9"
            ><input v-model="chosen" type="checkbox" :value="one.person_id" /> {{ one.name }}</label
          >
        </fieldset>
        <button type="submit" class="act justify-self-start" :disabled="!gauge">
          Plan it: {{ readings }} readings
        </button>
      </form>
    </div>
  </main>
</template>
