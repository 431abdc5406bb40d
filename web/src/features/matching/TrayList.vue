<script setup lang="ts">
import { ask } from '@/api/ask'
import { type ChosenMatchingView, drawLiner, type TrayStepView } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { useForm } from '@/shared/ui/useForm'

import { stepWords } from './words'

/** The order that was chosen, step by step: everything is drawn before anything goes in; what was done is ticked. */
defineProps<{ chosen: ChosenMatchingView }>()
const job = useJob()
const { refusal, busy, send } = useForm()
const draw = (step: TrayStepView) =>
  send(async () => {
    await ask(drawLiner({ path: { hole_id: step.hole_id }, body: { person_id: personId.value } }))
    await job.reload()
  })
const PLACES = {
  cut: (step: TrayStepView) => ({ name: 'cut', params: { hole: step.hole }, query: { liner: step.liner } }),
  fit: (step: TrayStepView) => ({ name: 'cut', params: { hole: step.hole }, query: { liner: step.liner } }),
  read: (step: TrayStepView) => ({ name: 'block', params: { lens: 'protrusion', hole: step.hole } }),
} as const
</script>

<template>
  <section class="rounded bg-plate px-4 py-3 text-plate-text" aria-label="Tray list">
    <h2 class="text-plate-soft">
      Tray list, chosen by {{ chosen.chosen_by }}, {{ whenText(chosen.chosen_at) }}
    </h2>
    <p v-if="chosen.is_done" class="text-lg font-bold">Every liner is where it was to go, and read there.</p>
    <ol class="mt-1 text-lg">
      <li v-for="step in chosen.steps" :key="step.kind + step.hole" class="flex items-center gap-3">
        <span aria-hidden="true" class="w-5">{{ step.done ? '✓' : '·' }}</span>
        <span class="min-w-0 flex-1" :class="step.done ? 'text-plate-soft' : 'font-bold'"
          >{{ stepWords(step) }}<span class="sr-only">{{ step.done ? ', done' : '' }}</span></span
        >
        <button
          v-if="!step.done && step.ready && step.kind === 'draw'"
          type="button"
          class="min-h-11 text-plate-act underline"
          :disabled="busy"
          @click="draw(step)"
        >
          It is drawn<span class="sr-only">: {{ stepWords(step) }}</span>
        </button>
        <RouterLink
          v-else-if="!step.done && step.ready && step.kind !== 'draw'"
          class="inline-flex min-h-11 items-center text-plate-act underline"
          :to="PLACES[step.kind](step)"
          >Go there<span class="sr-only">: {{ stepWords(step) }}</span></RouterLink
        >
      </li>
    </ol>
    <p class="mt-1 text-sm text-plate-soft">
      Liners are heavy and sharp at the ends, pullers throw parts: lift with help, stand aside, by the rules
      of the shop.
    </p>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
