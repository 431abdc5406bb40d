<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type FindingFormView, type FindingKind, noteFinding } from '@/api/generated'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** One thing found: of which hole and part, a word for it, words of one's own, a figure where one was taken. */
const props = defineProps<{ forms: FindingFormView[]; holes: number[] }>()
const job = useJob()
const empty = {
  id: '',
  kind: 'condition' as FindingKind,
  hole: '1',
  part: '',
  word: '',
  words: '',
  figure: '',
}
const draft = useLocalStorage(`vallo-finding-${job.jobId}`, { ...empty })
const { refusal, busy, send, answer } = useForm()

const form = computed(() => props.forms.find((one) => one.kind === draft.value.kind))
/** What lies somewhere is pointed to on the picture of the deck. */
const kinds = computed(() =>
  props.forms.filter((one) => !one.lies).map((one) => ({ value: one.kind, label: one.kind })),
)
const holeChoices = computed(() => [
  { value: '', label: 'the whole block' },
  ...props.holes.map((hole) => ({ value: String(hole), label: `hole ${hole}` })),
])
const put = (path: string, text: string) => {
  if (path === 'figure') draft.value.figure = text
}

function note(confirmed = false): Promise<void> {
  draft.value.id ||= newId()
  return send(async () => {
    const { id, kind, hole, part, word, words, figure } = draft.value
    const body = {
      finding_id: id,
      kind,
      hole: hole === '' ? null : Number(hole),
      part: part || (form.value?.parts[0] ?? ''),
      word,
      words,
      figure,
      confirmed,
      person_id: personId.value,
    }
    await ownChange(job.jobId, () => ask(noteFinding({ path: { job_id: job.jobId }, body })))
    // The next hole is looked at in the same way.
    const next = props.holes[props.holes.indexOf(Number(hole)) + 1]
    draft.value = { ...empty, kind, part, hole: hole === '' || next === undefined ? hole : String(next) }
    await refresh(job.jobId)
  })
}
</script>

<template>
  <form
    class="grid gap-3 border-t border-ink pt-3 sm:grid-cols-3"
    aria-label="Found"
    @submit.prevent="note()"
  >
    <ChoiceField v-model="draft.kind" label="What kind" :choices="kinds" path="kind" />
    <ChoiceField v-model="draft.hole" label="Where" :choices="holeChoices" path="hole" />
    <TextField v-model="draft.part" label="Part" path="part" :hint="form?.parts.join(', ')" />
    <div class="sm:col-span-3">
      <p id="finding-words" class="text-sm text-ink-soft">How it is</p>
      <div class="flex flex-wrap gap-2" role="group" aria-labelledby="finding-words">
        <button
          v-for="word in form?.words ?? []"
          :key="word"
          type="button"
          class="min-h-11 border px-3"
          :class="draft.word === word ? 'border-ink bg-ink text-paper' : 'border-rule bg-sheet'"
          :aria-pressed="draft.word === word"
          @click="draft.word = draft.word === word ? '' : word"
        >
          {{ word }}
        </button>
      </div>
    </div>
    <TextField
      v-if="form?.unit"
      v-model="draft.figure"
      :label="form.figure"
      :unit="form.unit"
      path="figure"
    />
    <TextField v-model="draft.words" class="sm:col-span-2" label="In words" path="words" />
    <div class="sm:col-span-3">
      <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, note)" />
      <button type="submit" class="act mt-2" :disabled="busy">Write it down</button>
    </div>
    <p class="caution sm:col-span-3">
      Old gaskets may hold asbestos: wet, by hand, no wheel. Local rules and licensed practice come first.
    </p>
  </form>
</template>
