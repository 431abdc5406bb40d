<script setup lang="ts">
import { onKeyStroke, useLocalStorage } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'

import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { zeroWords } from '@/shared/format/zero'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useGaugeValue } from '@/shared/state/useGaugeValue'
import { useUndo } from '@/shared/state/useUndo'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import { isTyping } from '@/shared/ui/typing'

import BoreTracks from './BoreTracks.vue'
import DeckGrid from './DeckGrid.vue'
import SurveyAside from './SurveyAside.vue'
import SurveyNumbers from './SurveyNumbers.vue'
import SurveyTop from './SurveyTop.vue'
import UnreadablePlace from './UnreadablePlace.vue'
import { useSurvey } from './useSurvey'
import ZeroDoubts from './ZeroDoubts.vue'

/** The bench for any feature: the part drawn with its pattern, one place to read now, one large key. */
const job = useJob()
const undo = useUndo(job)
const bench = useSurvey(job, undo)
const { survey, here, at, taken, refusal, missing, deviates } = bench
const typed = useLocalStorage(`vallo-survey-typed-${job.jobId}`, '')
const field = ref<HTMLInputElement | null>(null)

const { gauge, live, trouble } = useGaugeValue(
  () => survey.value?.setup?.gauge.gauge_id ?? null,
  () =>
    here.value && {
      job_id: job.jobId,
      quantity: bench.quantity.value,
      part: bench.partKey.value,
      place: here.value.place,
    },
)
/** A rocked gauge gives its turning points; until there is one, nothing can be taken. */
const rocks = computed(() => /bore/i.test(survey.value?.setup?.gauge.kind ?? '') && gauge.value !== null)
const said = computed(() => {
  if (!live.value || !gauge.value) return null
  if (!rocks.value) return { text: gauge.value.text, value: gauge.value.value_m ?? 0 }
  const rocked = gauge.value.rocked
  return rocked ? { text: rocked.text, value: rocked.value_m } : null
})
const small = computed(() => deviates.value || !survey.value?.is_size)
const digits = computed(() => {
  const value = said.value?.value ?? (live.value && rocks.value ? gauge.value?.value_m : null)
  if (value == null) return '– – –'
  return small.value
    ? exactSmall(value, unit.value, { signed: true })
    : lengthText(value, SIZE_WITH[unit.value])
})
const rockWords = computed(() => {
  if (!rocks.value || !live.value) return ''
  const rocked = gauge.value?.rocked
  if (!rocked) return 'Rock it: the size is where it turns.'
  const many =
    rocked.rocks === 1
      ? 'one rock'
      : `${rocked.rocks} rocks, ${lengthText(rocked.spread_m, unit.value, { digits: 1 })} ${unit.value} apart`
  return `Turning point of ${many}.`
})
const tip = computed(() =>
  said.value && deviates.value
    ? said.value.value + (survey.value?.setup?.zero_m ?? 0)
    : (said.value?.value ?? null),
)
const circumstances = computed(() => {
  const setup = survey.value?.setup
  if (!setup) return ''
  return [
    setup.gauge.name,
    setup.master ? `set on ${setup.master}` : zeroWords(setup),
    setup.method,
    setup.load,
  ]
    .filter(Boolean)
    .join(' · ')
})
const drawn = computed(() => {
  const kind = survey.value?.pattern_kind
  return kind === 'grid' ? 'grid' : kind === 'one place' ? 'one' : 'levels'
})

function takeFromGauge(readBefore: '' | 'repeat' = ''): void {
  if (said.value) void bench.take({ text: said.value.text, readBefore })
  else tell(trouble.value || rockWords.value || 'Nothing to take.', false)
}
async function takeTyped(): Promise<void> {
  if (await bench.take({ text: typed.value })) typed.value = ''
}
const free = (run: () => void) => (event: KeyboardEvent) => {
  if (isTyping(event) || event.ctrlKey || event.metaKey) return
  event.preventDefault()
  run()
}
onKeyStroke(
  [' ', 'PageDown', 'F8'],
  free(() => takeFromGauge()),
)
onKeyStroke(
  ']',
  free(() => bench.step(1)),
)
onKeyStroke(
  '[',
  free(() => bench.step(-1)),
)
onKeyStroke(
  'ArrowRight',
  free(() => (drawn.value === 'grid' ? bench.move('right') : bench.step(1))),
)
onKeyStroke(
  'ArrowLeft',
  free(() => (drawn.value === 'grid' ? bench.move('left') : bench.step(-1))),
)
onKeyStroke(
  'ArrowUp',
  free(() => bench.move('up')),
)
onKeyStroke(
  'ArrowDown',
  free(() => bench.move('down')),
)
onKeyStroke(
  'r',
  free(() => void (refusal.value ? bench.again('repeat') : takeFromGauge('repeat'))),
)
onKeyStroke(
  'c',
  free(() => void (refusal.value ? bench.again('correct') : undefined)),
)
onKeyStroke('z', (event) => {
  if ((event.ctrlKey || event.metaKey) && !isTyping(event)) void undo.undo().then(bench.load)
})
/** Any digit, sign or point opens the line. */
onKeyStroke(
  (event) => /^[0-9.,+−-]$/.test(event.key),
  (event) => {
    if (isTyping(event) || event.ctrlKey || event.metaKey || !field.value) return
    event.preventDefault()
    typed.value += event.key
    void nextTick(() => field.value?.focus())
  },
)
</script>

<template>
  <main v-if="job.block.value" class="flex min-h-screen flex-1 flex-col">
    <SurveyTop :block="job.block.value" :bench="bench" />
    <p v-if="!survey && refusal" class="px-4 py-3"><RefusalChoices :refusal="refusal" /></p>
    <div
      v-if="survey"
      class="grid flex-1 content-start gap-x-8 gap-y-3 px-4 py-3 lg:grid-cols-[minmax(0,11fr)_minmax(0,12fr)]"
    >
      <section class="min-w-0 lg:col-start-2" aria-label="Now">
        <h1 class="text-2xl leading-tight font-bold sm:text-3xl">
          <template v-if="here?.name">{{ here.name[0]?.toUpperCase() }}{{ here.name.slice(1) }}</template>
          <template v-else>{{ survey.part.title }}</template>
        </h1>
        <p v-if="missing.length === 0" class="text-lg text-in">Every place is read.</p>
        <p class="flex items-baseline gap-3" aria-live="off">
          <span
            class="num text-7xl leading-none font-bold sm:text-8xl"
            :class="said ? '' : 'text-ink-soft'"
            data-live
            >{{ digits }}</span
          >
          <span class="text-3xl text-ink-soft">{{ small ? unit : SIZE_WITH[unit] }}</span>
        </p>
        <p
          class="min-h-6"
          :class="trouble ? 'font-bold text-unsure' : 'text-ink-soft'"
          role="status"
          aria-label="Gauge"
        >
          {{ trouble || [rockWords, circumstances].filter(Boolean).join(' ') }}
        </p>
        <RefusalChoices
          class="my-2 text-lg"
          :refusal="refusal"
          @answer="bench.again"
          @read-before="bench.again"
        />
        <div class="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4">
          <button
            type="button"
            class="act col-span-2 min-h-16 text-2xl"
            :disabled="!said || !survey.part.can_read"
            title="Space, or the pedal"
            @click="takeFromGauge()"
          >
            Take
          </button>
          <button
            type="button"
            class="quiet min-h-16 text-lg"
            :disabled="!said"
            title="R"
            @click="takeFromGauge('repeat')"
          >
            Repeat
          </button>
          <button
            type="button"
            class="quiet min-h-16 text-lg"
            title="Ctrl+Z"
            @click="undo.undo().then(bench.load)"
          >
            Undo
          </button>
        </div>
        <form class="mt-3 flex flex-wrap items-center gap-3" @submit.prevent="takeTyped">
          <label for="survey-typed" class="sr-only">Type a reading</label>
          <input
            id="survey-typed"
            ref="field"
            v-model="typed"
            class="num min-h-12 w-full max-w-48 border-2 border-ink bg-sheet px-3 text-2xl"
            autocomplete="off"
            maxlength="60"
            placeholder="or type it"
            @keydown.esc="field?.blur()"
          />
          <button type="submit" class="quiet min-h-12 text-lg" :disabled="typed.trim() === ''">
            Take typed
          </button>
          <span class="min-h-7 text-lg" role="status" aria-label="Taken">
            <template v-if="taken"
              >taken: <b class="num whitespace-normal">{{ taken }}</b></template
            >
          </span>
        </form>
        <ZeroDoubts class="mt-3" :survey="survey" :bench="bench" :job-id="job.jobId" />
        <UnreadablePlace v-if="here" :key="at ?? ''" :bench="bench" />
      </section>
      <div class="min-w-0 lg:col-start-1 lg:row-span-3 lg:row-start-1">
        <BoreTracks
          v-if="drawn === 'levels'"
          :survey="survey"
          :at="at"
          :tip="tip"
          class="mx-auto max-h-[84vh]"
          @choose="bench.go"
        />
        <DeckGrid
          v-else-if="drawn === 'grid'"
          :survey="survey"
          :block="job.block.value"
          :at="at"
          @choose="bench.go"
        />
        <SurveyNumbers v-if="drawn !== 'levels'" class="mt-4" :survey="survey" :job-id="job.jobId" />
      </div>
      <section class="min-w-0 lg:col-start-2" aria-label="So far">
        <SurveyNumbers v-if="drawn === 'levels'" :survey="survey" :job-id="job.jobId" />
      </section>
      <SurveyAside
        class="lg:col-start-2"
        :survey="survey"
        :bench="bench"
        :job-id="job.jobId"
        :block="job.block.value"
      />
    </div>
  </main>
</template>
