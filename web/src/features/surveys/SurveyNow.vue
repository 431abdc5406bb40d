<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Suggestion } from '@/api/ask'
import { bareFor } from '@/shared/format/bareUnit'
import { digitsFor, otherSmall, SIZE_WITH, sizeText, smallText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import type { ReadBefore } from '@/shared/state/useCapture'
import type { Undo } from '@/shared/state/useUndo'
import BareHint from '@/shared/ui/BareHint.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TakenLine from '@/shared/ui/TakenLine.vue'
import UndoButton from '@/shared/ui/UndoButton.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'

import NeedleCounter from './NeedleCounter.vue'
import type { SurveyBench } from '@/shared/state/useSurvey'
import type { SurveyGauge } from '@/shared/state/useSurveyGauge'

/** The place to read now, what the gauge says in huge digits, and the keys to take it. */
const props = defineProps<{ bench: SurveyBench; gauge: SurveyGauge; undo: Undo }>()
const emit = defineEmits<{
  take: []
  repeat: []
  again: [answer: Suggestion | ReadBefore]
  takeTyped: []
  undo: []
  choose: []
  zero: []
}>()
const typed = defineModel<string>('typed', { required: true })
const { survey, here, taken, refusal, busy, missing, deviates } = props.bench
const { said, digits, shownUnit, words, inTheWay } = props.gauge
const field = ref<HTMLInputElement | null>(null)
defineExpose({ focus: () => field.value?.focus(), blur: () => field.value?.blur() })
const title = computed(() => here.value?.name || survey.value?.part.title || '')
const isRocked = computed(() => survey.value?.gauge_is_rocked === true)
/** What stands at this place, with how often it was read. */
const standing = computed(() => {
  const now = here.value
  if (now?.value_m == null) return ''
  const isSize = survey.value?.is_size && !survey.value.relative
  const step = Number(survey.value?.setup?.gauge.resolution_um ?? 0) / 1e6
  const size = SIZE_WITH[unit.value]
  const value = isSize
    ? sizeText(now.value_m, unit.value, now.expanded_m, { digits: digitsFor(step, size) })
    : smallText(now.value_m, now.expanded_m, unit.value)
  const other = isSize
    ? sizeText(now.value_m, otherSmall(unit.value))
    : smallText(now.value_m, null, otherSmall(unit.value))
  return `${value}, ${times(now.readings.length)}${now.doubtful ? ', doubtful' : ''} (${other})`
})
const times = (count: number) => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`)
/** What the gauge stands at as nought, where it is a size. [m] */
const zero = computed(() =>
  deviates.value && !survey.value?.relative ? (survey.value?.setup?.zero_m ?? 0) : 0,
)
const small = computed(() => deviates.value || !survey.value?.is_size)
</script>

<template>
  <h1 class="text-2xl leading-tight font-bold sm:text-3xl">
    {{ title[0]?.toUpperCase() }}{{ title.slice(1) }}
  </h1>
  <p v-if="missing.length === 0" class="text-lg text-in">
    Every place is read.
    <button
      v-if="survey?.gauge_has_zero && !survey.zero_is_looked_at"
      type="button"
      class="link text-left"
      @click="emit('zero')"
    >
      Look at the zero before the gauge is put away
    </button>
  </p>
  <p class="flex items-baseline gap-3" aria-live="off">
    <span
      class="num text-7xl leading-none font-bold sm:text-8xl"
      :class="said ? '' : 'text-ink-soft'"
      data-live
      >{{ digits }}</span
    >
    <span class="text-3xl text-ink-soft">{{ shownUnit }}</span>
  </p>
  <p
    class="min-h-6"
    :class="inTheWay ? 'font-bold text-unsure' : 'text-ink-soft'"
    role="status"
    aria-label="Gauge"
  >
    {{ words }}
  </p>
  <p v-if="standing">
    <span class="mr-3 text-ink-soft">here</span><span class="num whitespace-normal">{{ standing }}</span>
  </p>
  <RefusalChoices
    class="my-2 text-lg"
    :refusal="refusal"
    @answer="emit('again', $event)"
    @read-before="emit('again', $event)"
  />
  <button
    v-if="survey && !survey.setup"
    type="button"
    class="act mt-2 min-h-16 w-full text-2xl"
    @click="emit('choose')"
  >
    Choose the gauge
  </button>
  <div v-else class="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4">
    <button
      type="button"
      class="act col-span-2 min-h-16 text-2xl"
      :disabled="!said || !survey?.part.can_read || busy"
      title="Space, or the pedal"
      @click="emit('take')"
    >
      Take
    </button>
    <button
      type="button"
      class="quiet min-h-16 text-lg"
      :disabled="!said || busy"
      title="R"
      @click="emit('repeat')"
    >
      Repeat
    </button>
    <UndoButton class="min-h-16 text-lg" :undo="undo" :asked="refusal !== null" @undo="emit('undo')" />
  </div>
  <UndoNote :undo="undo" />
  <form
    v-if="survey?.setup"
    class="mt-3 flex flex-wrap items-center gap-3"
    @submit.prevent="emit('takeTyped')"
  >
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
    <button type="submit" class="quiet min-h-12 text-lg" :disabled="typed.trim() === ''">Take typed</button>
    <BareHint :text="typed" :quantity="survey.quantity" :bare="bareFor(!small, unit)" :zero="zero" />
    <TakenLine :taken="taken" />
  </form>
  <details v-if="isRocked" class="mt-1">
    <summary class="min-h-8 cursor-pointer">Rocks read by eye</summary>
    <p>Type them with semicolons, such as 2 1/2; 2; 2 1/4: the smallest is taken, all are kept.</p>
  </details>
  <NeedleCounter v-if="small && survey?.setup" @counted="typed = $event" />
</template>
