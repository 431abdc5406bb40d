<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'

import type { FindingKind, PreparationView } from '@/api/generated'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { Spot } from './picture'
import type { PreparationNow } from './usePreparation'

/** A mark on deck or ledge, or wear of the seat: pointed to on the picture, or typed as clock and distance. */
const props = defineProps<{
  now: PreparationNow
  ready: PreparationView
  holes: number[]
  spot: Spot | null
}>()
const emit = defineEmits<{ hole: [hole: number] }>()
const job = useJob()
const empty = {
  id: '',
  kind: 'mark on deck or ledge' as FindingKind,
  hole: '1',
  part: 'deck',
  word: 'pit',
  hour: '',
  until: '',
  distance: '',
  depth: '',
  width: '',
  words: '',
  reading: '',
}
const draft = useLocalStorage(`vallo-mark-${job.jobId}`, { ...empty })
const { refusal, busy, send, answer } = useForm()
const KINDS: { value: FindingKind; label: string; parts: string[]; words: string[] }[] = [
  {
    value: 'mark on deck or ledge',
    label: 'a mark',
    parts: ['deck', 'ledge'],
    words: ['pit', 'score', 'fire-ring mark'],
  },
  {
    value: 'wear of the seat',
    label: 'wear',
    parts: ['ledge', 'under the flange', 'liner below the flange'],
    words: ['worn ring', 'worn under the flange', 'cavitation line', 'fretted'],
  },
]
const kind = computed(() => KINDS.find((one) => one.value === draft.value.kind) ?? KINDS[0])
const asChoices = (values: readonly string[]) => values.map((value) => ({ value, label: value }))
const isMark = computed(() => draft.value.kind === 'mark on deck or ledge')
const readings = computed(() => [
  { value: '', label: 'none' },
  ...props.ready.readings
    .filter((one) => one.hole === Number(draft.value.hole))
    .map((one) => ({ value: one.reading_id, label: one.words })),
])

watch(
  () => props.spot,
  (spot) => {
    if (!spot) return
    const onLedge = spot.distance < 0
    draft.value.hole = String(spot.hole)
    draft.value.hour = String(Math.round(spot.hour * 10) / 10)
    if (isMark.value) draft.value.part = onLedge ? 'ledge' : 'deck'
    draft.value.distance = onLedge ? '' : `${(spot.distance * 1e3).toFixed(0)} mm`
  },
)
watch(
  () => draft.value.kind,
  () => {
    draft.value.part = kind.value?.parts[0] ?? ''
    draft.value.word = kind.value?.words[0] ?? ''
  },
)
watch(
  () => Number(draft.value.hole),
  (hole) => emit('hole', hole),
  { immediate: true },
)
/** `4h` as on the bench, or the bare number. */
const hourOf = (text: string) => {
  const hour = Number(text.trim().replace(/h$/i, '').replace(',', '.'))
  return text.trim() === '' || !Number.isFinite(hour) ? null : hour
}
const bare = computed(() => (unit.value === 'µm' ? 'mm' : 'thou'))
const put = (path: string, text: string) => {
  if (path === 'figure') draft.value.depth = text
  if (path === 'distance') draft.value.distance = text
  if (path === 'width') draft.value.width = text
}

function note(confirmed = false): Promise<void> {
  draft.value.id ||= newId()
  return send(async () => {
    const { id, hole, part, word, words, hour, until, distance, depth, width, reading } = draft.value
    await props.now.find({
      finding_id: id,
      kind: draft.value.kind,
      hole: Number(hole),
      part,
      word,
      words,
      figure: depth,
      bare_unit: bare.value,
      hour: hourOf(hour),
      until_hour: hourOf(until),
      distance: part === 'deck' ? distance : '',
      width,
      reading_id: reading || null,
      confirmed,
    })
    draft.value = { ...empty, kind: draft.value.kind, hole, part, word }
  })
}
</script>

<template>
  <form
    class="grid grid-cols-2 gap-x-3 sm:grid-cols-4 gap-y-2"
    aria-label="Mark or wear"
    @submit.prevent="note()"
  >
    <ChoiceField v-model="draft.kind" label="What" :choices="KINDS" path="kind" />
    <ChoiceField
      v-model="draft.hole"
      label="Hole"
      :choices="holes.map((hole) => ({ value: String(hole), label: `hole ${hole}` }))"
      path="hole"
    />
    <ChoiceField v-model="draft.part" label="On" :choices="asChoices(kind?.parts ?? [])" path="part" />
    <ChoiceField v-model="draft.word" label="It is a" :choices="asChoices(kind?.words ?? [])" path="word" />
    <TextField v-model="draft.hour" label="Clock" unit="h" path="hour" />
    <TextField v-if="!isMark" v-model="draft.until" label="as far as" unit="h" path="until_hour" />
    <TextField
      v-if="draft.part === 'deck'"
      v-model="draft.distance"
      label="From the edge"
      :bare="bare"
      path="distance"
    />
    <TextField v-model="draft.depth" label="How deep" :bare="bare" path="figure" />
    <TextField v-model="draft.width" label="How wide" :bare="bare" path="width" />
    <ChoiceField
      v-if="!isMark"
      v-model="draft.reading"
      class="col-span-2"
      label="Explains the reading"
      :choices="readings"
      path="reading_id"
    />
    <TextField v-model="draft.words" class="col-span-2" label="In words" path="words" />
    <div class="col-span-2 flex items-end">
      <button type="submit" class="quiet min-h-11 font-bold" :disabled="busy">Write it down</button>
    </div>
    <RefusalChoices
      class="col-span-2 sm:col-span-4"
      :refusal="refusal"
      @answer="(one) => answer(one, put, note)"
    />
  </form>
</template>
