<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'

import type { BoreChoice, CleanUpView, HoleOnLadder, OptionView, UseProfile } from '@/api/generated'
import { clockText, hourOfAngle } from '@/shared/format/clock'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { CleanUpNow } from './useCleanUp'

/** What one bore is given, with the reason, under the name of who decides. */
const props = defineProps<{
  now: CleanUpNow
  view: CleanUpView
  hole: HoleOnLadder
  option: OptionView | null
  jobId: string
}>()
const emit = defineEmits<{ done: [] }>()
const empty = {
  choice: 'bore to a step' as BoreChoice,
  step: '',
  move: '',
  toward: '',
  reason: '',
  concession: '',
  profile: 'stock' as UseProfile,
  limit: '',
  all: false,
}
const draft = useLocalStorage(`vallo-bore-decision-${props.jobId}-${props.hole.hole}`, { ...empty })
const { refusal, busy, send, answer } = useForm()
const CHOICES: BoreChoice[] = ['leave as it is', 'hone', 'bore to a step', 'sleeve', 'scrap']
const asChoices = (values: readonly string[]) => values.map((value) => ({ value, label: value }))
const steps = computed(() =>
  props.view.steps.map((one) => ({ value: String(one.oversize_um), label: `+${one.typed}, ${one.had}` })),
)
const profiles = computed(() =>
  props.view.profiles.map((one) => ({ value: one.profile, label: one.profile })),
)
const bears = computed(() => props.view.profiles.find((one) => one.profile === draft.value.profile))
const bare = computed(() => (unit.value === 'µm' ? 'µm' : 'thou'))
/** An option that was chosen fills in what it is, and where its centre goes. */
watch(
  () => props.option,
  (option) => {
    if (!option) return
    draft.value.choice = option.choice
    draft.value.step = option.oversize_um === null ? '' : String(option.oversize_um)
    const rung = props.hole.rungs.find((one) => one.step.oversize_um === option.oversize_um)
    const { best } = props.hole
    const moves = rung !== undefined && rung.drawn !== 'in' && best !== null && best.move_m > 0
    draft.value.move = moves ? `${lengthText(best.move_m, unit.value)} ${unit.value}` : ''
    draft.value.toward = moves ? clockText(hourOfAngle(best.move_deg)) : ''
  },
  { immediate: true },
)
const hourOf = (text: string): number | null => {
  const clock = /^(\d{1,2}):(\d{2})$/.exec(text.trim())
  const hour = clock ? Number(clock[1]) + Number(clock[2]) / 60 : Number(text.trim().replace(/h$/i, ''))
  if (text.trim() === '' || !Number.isFinite(hour)) return null
  return hour === 0 ? 12 : Math.round((((hour - 0.001) % 12) + 0.001) * 100) / 100
}
const put = (path: string, text: string) => {
  if (path === 'move') draft.value.move = text
}
function decide(confirmed = false): Promise<void> {
  return send(async () => {
    const sent = { ...draft.value }
    const { choice, step, move, toward, reason, concession, profile, limit, all } = sent
    const holes = all ? props.view.holes.map((one) => one.hole) : [props.hole.hole]
    await props.now.decide(
      holes.map((hole) => {
        const own = hole === props.hole.hole && choice === 'bore to a step'
        return {
          hole,
          choice,
          oversize_um: choice === 'bore to a step' && step !== '' ? step : null,
          move: own ? move : '',
          toward_hour: own ? hourOf(toward) : null,
          reason,
          concession,
          profile,
          use_limit: limit,
          bare_unit: bare.value,
          confirmed,
        }
      }),
    )
    // What was chosen or typed while this was on its way is the next decision: it stays open and keeps its words.
    if (JSON.stringify(sent) !== JSON.stringify(draft.value)) return
    draft.value = { ...empty, profile }
    emit('done')
  })
}
</script>

<template>
  <form
    class="grid gap-x-3 gap-y-2 sm:grid-cols-4"
    :aria-label="`Decide bore ${hole.hole}`"
    @submit.prevent="decide()"
  >
    <ChoiceField v-model="draft.choice" label="It is given" :choices="asChoices(CHOICES)" path="choice" />
    <ChoiceField
      v-if="draft.choice === 'bore to a step'"
      v-model="draft.step"
      label="Step"
      :choices="steps"
      path="oversize_um"
    />
    <TextField
      v-if="draft.choice === 'bore to a step'"
      v-model="draft.move"
      label="Centre moved"
      :bare="bare"
      path="move"
    />
    <TextField
      v-if="draft.choice === 'bore to a step'"
      v-model="draft.toward"
      label="towards"
      unit="h"
      path="toward_hour"
    />
    <TextField v-model="draft.reason" class="sm:col-span-2" label="Because" path="reason" />
    <ChoiceField v-model="draft.profile" label="The engine is for" :choices="profiles" path="profile" />
    <p class="self-end pb-2 text-sm text-ink-soft">{{ bears?.words }}</p>
    <TextField
      v-if="bears?.bears"
      v-model="draft.concession"
      class="sm:col-span-2"
      label="Accepted below book, if anything"
      path="concession"
    />
    <TextField
      v-if="bears?.bears"
      v-model="draft.limit"
      class="sm:col-span-2"
      label="and it must not be asked for"
      path="use_limit"
    />
    <label class="flex items-center gap-2 text-sm sm:col-span-2"
      ><input v-model="draft.all" type="checkbox" /> the same for every bore of the block</label
    >
    <div class="flex items-end sm:col-span-2">
      <button type="submit" class="act" :disabled="busy">Decide under my name</button>
    </div>
    <RefusalChoices class="col-span-full" :refusal="refusal" @answer="(one) => answer(one, put, decide)" />
  </form>
</template>
