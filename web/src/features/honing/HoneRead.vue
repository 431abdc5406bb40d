<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { HoneView, SurveyView } from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { placeKey } from '@/shared/state/places'
import { unit } from '@/shared/state/preferences'
import { useSurvey } from '@/shared/state/useSurvey'
import { useSurveyGauge } from '@/shared/state/useSurveyGauge'
import { useTaking } from '@/shared/state/useTaking'
import { useJobUndo } from '@/shared/state/useUndo'
import BareHint from '@/shared/ui/BareHint.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TakenLine from '@/shared/ui/TakenLine.vue'

/** Between two rounds the bore is read, place by place, by the pedal that starts and stops the stones. */
const props = defineProps<{ view: HoneView }>()
const emit = defineEmits<{ read: []; survey: [survey: SurveyView] }>()
const job = useJob()
const undo = useJobUndo()
const bench = useSurvey(job, undo, () => ({ quantity: props.view.quantity, part: props.view.part_key }))
const gauge = useSurveyGauge(job.jobId, bench)
const { survey, here, at, refusal, busy, missing, taken } = bench
const line = ref<HTMLInputElement | null>(null)
const taking = useTaking({
  drafts: `vallo-hone-typed-${job.jobId}`,
  spot: () => `${props.view.quantity}·${props.view.part_key}·${at.value ?? ''}`,
  capture: bench,
  said: () => gauge.said.value?.text ?? null,
  trouble: () => gauge.words.value,
  line: () => line.value,
})
const { typed } = taking
/** A round that was stopped makes what was read before it to be read again. */
watch(
  () => props.view.state,
  () => void bench.load().then(() => bench.go(null)),
)
watch(survey, (now) => now && emit('survey', now))
watch(missing, (now, before) => {
  if (survey.value && now.length === 0 && before.length > 0) emit('read')
})
defineExpose({
  take: () => taking.takeFromGauge(),
  takeBack: () => bench.takeBack(),
  load: () => bench.load(),
})
const isMeasuring = computed(() => props.view.state === 'measure')
const small = computed(() => bench.deviates.value || !survey.value?.is_size)
const name = computed(() => here.value?.name ?? '')
const done = computed(() => (survey.value?.places.length ?? 0) - missing.value.length)
</script>

<template>
  <section v-if="isMeasuring" aria-label="Read the bore">
    <p class="text-xl">Read the bore, {{ done }} of {{ survey?.places.length ?? 0 }}</p>
    <h2 class="text-3xl leading-tight">{{ name ? name[0]?.toUpperCase() + name.slice(1) : 'The bore' }}</h2>
    <p class="mt-1 flex items-end gap-3" aria-live="off">
      <span
        class="num text-[4.6rem] leading-none font-bold"
        :class="gauge.said.value ? '' : 'text-ink-soft'"
        data-live
        >{{ gauge.digits.value }}</span><span class="pb-2 text-2xl text-ink-soft">{{
        gauge.shownUnit.value
      }}</span>
    </p>
    <p
      :class="gauge.inTheWay.value ? 'font-bold text-unsure' : 'text-sm text-ink-soft'"
      role="status"
      aria-label="Gauge"
    >
      {{ gauge.words.value }}
    </p>
    <RouterLink
      v-if="survey && !survey.setup"
      class="act mt-2 inline-flex items-center"
      :to="{ name: 'survey', params: { quantity: view.quantity, part: view.part_key } }"
      >Choose the gauge</RouterLink
    >
    <RefusalChoices
      :refusal="refusal"
      class="my-1"
      @answer="taking.again($event)"
      @read-before="taking.again($event)"
    />
    <form
      v-if="survey?.setup"
      class="mt-2 flex flex-wrap items-center gap-2"
      @submit.prevent="taking.takeTyped()"
    >
      <label for="hone-typed" class="sr-only">Type a reading</label>
      <input
        id="hone-typed"
        ref="line"
        v-model="typed"
        class="num min-h-12 w-44 border-2 border-ink bg-sheet px-3 text-2xl"
        autocomplete="off"
        maxlength="60"
        placeholder="or type it"
        @keydown.esc="line?.blur()"
      />
      <button type="submit" class="quiet min-h-12 text-lg" :disabled="typed.trim() === '' || busy">
        Take typed
      </button>
      <BareHint
        :text="typed"
        :quantity="view.quantity"
        :bare="bareFor(!small, unit)"
        :zero="bench.deviates.value && !survey.relative ? (survey.setup.zero_m ?? 0) : 0"
      />
    </form>
    <TakenLine :taken="taken" />
    <ol class="mt-2 grid grid-cols-2 gap-x-4 border-t-2 border-rule pt-1 sm:grid-cols-3 lg:grid-cols-2">
      <li v-for="row in survey?.places ?? []" :key="placeKey(row.place)">
        <button
          type="button"
          class="flex min-h-11 w-full items-baseline justify-between gap-2 border-b border-rule text-left text-sm"
          :class="placeKey(row.place) === at ? 'font-bold text-act' : ''"
          :aria-current="placeKey(row.place) === at"
          @click="bench.go(placeKey(row.place))"
        >
          {{ row.name }}
          <span class="num">{{
            row.value_m === null
              ? row.unreadable
                ? 'not readable'
                : '–'
              : lengthText(row.value_m, SIZE_WITH[unit])
          }}</span>
        </button>
      </li>
    </ol>
  </section>
</template>
