<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'

import { newId } from '@/shared/newId'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { Spot } from './unrolled'
import type { WallNow } from './useWall'

/** What lies on the wall: pointed to on the picture, drawn from one point to another, or typed. */
const props = defineProps<{ now: WallNow; jobId: string; spot: Spot | null }>()
const emit = defineEmits<{ done: [] }>()
const WORDS = [
  'score',
  'pitted area',
  'scuffed downwards',
  'scuffed upwards',
  'cavitation line',
  'water mark',
  'stripe left',
  'dark area',
  'bright area',
]
const FEEL = [
  'nail glides over it',
  'needle dances',
  'needle hangs',
  'sounds dull',
  'sounds rough',
  'pushes evenly',
  'pushes tight, then free',
]
const AREAS = ['stripe left', 'dark area', 'bright area']
const empty = {
  id: '',
  word: 'score',
  hour: '',
  until: '',
  from: '',
  to: '',
  depth: '',
  catches: false,
  round: '',
  words: '',
  corner: 'first' as 'first' | 'second',
}
const draft = useLocalStorage(`vallo-wall-mark-${props.jobId}`, { ...empty })
const { refusal, busy, send, answer } = useForm()
const isFeel = computed(() => FEEL.includes(draft.value.word))
const isArea = computed(() => AREAS.includes(draft.value.word))
const choices = computed(() => [
  ...WORDS.map((one) => ({ value: one, label: one })),
  ...FEEL.map((one) => ({ value: one, label: `feel: ${one}` })),
])
const bare = computed(() => (unit.value === 'µm' ? 'mm' : 'thou'))
const size = computed(() => SIZE_WITH[unit.value])
/** The first point says where it begins, the second where it ends. */
watch(
  () => props.spot,
  (spot) => {
    if (!spot) return
    const hour = String(Math.round(spot.hour * 20) / 20)
    const depth = `${lengthText(spot.depth, size.value, { digits: size.value === 'inch' ? 2 : 0 })} ${size.value === 'inch' ? 'in' : 'mm'}`
    if (draft.value.corner === 'first')
      Object.assign(draft.value, { hour, from: depth, until: '', to: '', corner: 'second' })
    else Object.assign(draft.value, { until: hour, to: depth, corner: 'first' })
  },
)
const hourOf = (text: string): number | null => {
  const clock = /^(\d{1,2}):(\d{2})$/.exec(text.trim().replace(/h$/i, ''))
  const hour = clock
    ? Number(clock[1]) + Number(clock[2]) / 60
    : Number(text.trim().replace(/h$/i, '').replace(',', '.'))
  if (text.trim() === '' || !Number.isFinite(hour)) return null
  return hour === 0 ? 12 : Math.round(hour * 100) / 100
}
const PATHS: Record<string, 'depth' | 'from' | 'to'> = {
  figure: 'depth',
  from_depth: 'from',
  until_depth: 'to',
}
function put(path: string, text: string): void {
  const name = PATHS[path]
  if (name) draft.value[name] = text
}
function note(confirmed = false): Promise<void> {
  draft.value.id ||= newId()
  return send(async () => {
    const { id, word, hour, until, from, to, depth, catches, round, words } = draft.value
    await props.now.note({
      finding_id: id,
      kind: isFeel.value ? 'feel' : 'mark on the wall',
      hole: props.now.hole.value,
      part: 'bore',
      word,
      words,
      figure: isFeel.value ? '' : depth,
      bare_unit: bare.value,
      hour: hourOf(hour),
      until_hour: hourOf(until),
      from_depth: from,
      until_depth: to,
      catches,
      in_round: round,
      confirmed,
    })
    draft.value = { ...empty, word, round }
    emit('done')
  })
}
</script>

<template>
  <form
    class="grid grid-cols-2 gap-x-3 gap-y-2 sm:grid-cols-4"
    aria-label="Something on the wall"
    @submit.prevent="note()"
  >
    <p class="col-span-full text-sm text-ink-soft">
      Point to where it begins, then to where it ends, or type it: clock as 5:40 or 5.67.
    </p>
    <ChoiceField v-model="draft.word" class="col-span-2" label="It is a" :choices="choices" path="word" />
    <TextField v-model="draft.hour" label="Clock" unit="h" path="hour" />
    <TextField v-model="draft.until" label="as far as" unit="h" path="until_hour" />
    <TextField v-model="draft.from" label="From" :bare="size" path="from_depth" />
    <TextField v-model="draft.to" label="down to" :bare="size" path="until_depth" />
    <TextField v-if="!isFeel && !isArea" v-model="draft.depth" label="How deep" :bare="bare" path="figure" />
    <TextField
      v-if="isArea"
      v-model="draft.round"
      class="col-span-2"
      label="After which round"
      path="in_round"
    />
    <label v-if="!isFeel && !isArea" class="flex items-end gap-2 pb-2 text-sm">
      <input v-model="draft.catches" type="checkbox" /> catches a nail
    </label>
    <TextField v-model="draft.words" class="col-span-2" label="In words" path="words" />
    <div class="flex items-end">
      <button type="submit" class="quiet min-h-11 font-bold" :disabled="busy">Write it down</button>
    </div>
    <RefusalChoices class="col-span-full" :refusal="refusal" @answer="(one) => answer(one, put, note)" />
  </form>
</template>
