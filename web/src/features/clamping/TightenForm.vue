<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type BuildView, type Clamp, type FixtureView, listFixtures } from '@/api/generated'
import { torqueText } from '@/shared/format/others'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { ClampingNow } from './useClamping'

/** How a plate or the caps are tightened: with what, how many bolts, in which rounds. */
const props = defineProps<{ now: ClampingNow; build: BuildView; jobId: string; holes: number[] }>()
const { refusal, busy, send } = useForm()
const { data: fixtures } = useLoaded<FixtureView[]>(() => ask(listFixtures()))
const EMPTY = {
  clamp: 'torque plate' as Clamp,
  bolts: '',
  stages: '',
  fixture: '',
  gasket: props.build.gasket,
  fasteners: props.build.fasteners,
  from_hole: String(props.holes[0] ?? 1),
  to_hole: String(props.holes.at(-1) ?? 1),
  order: '',
  words: '',
}
const draft = useLocalStorage(`vallo-tighten-${props.jobId}`, EMPTY, { mergeDefaults: true })
const isPlate = computed(() => draft.value.clamp === 'torque plate')
const plates = computed(() => [
  { value: '', label: 'not on the shop’s list' },
  ...(fixtures.value ?? []).map((one) => ({ value: one.name, label: `${one.name}: fits ${one.fits}` })),
])
const stagesHint = computed(() =>
  isPlate.value && props.build.torque_nm !== null
    ? `left empty: thirds of ${torqueText(props.build.torque_nm)}`
    : 'such as 40 80 120 N·m',
)
const begin = () =>
  send(async () => {
    const { clamp, bolts, stages, fixture, gasket, fasteners, from_hole, to_hole, order, words } = draft.value
    const plate = isPlate.value
    await props.now.begin({
      clamp,
      bolts: Number(bolts) || 0,
      stages,
      order,
      words,
      fasteners,
      fixture: plate ? fixture : '',
      gasket: plate ? gasket : '',
      from_hole: plate ? Number(from_hole) || null : null,
      to_hole: plate ? Number(to_hole) || null : null,
    })
    draft.value = { ...EMPTY }
  })
</script>

<template>
  <form
    class="grid grid-cols-2 items-start gap-x-4 gap-y-2 sm:grid-cols-4"
    aria-label="Tighten"
    @submit.prevent="begin"
  >
    <ChoiceField
      v-model="draft.clamp"
      label="What is tightened"
      :choices="['torque plate', 'main caps'].map((value) => ({ value, label: value }))"
      path="clamp"
    />
    <TextField v-model="draft.bolts" label="How many bolts" path="bolts" whole />
    <TextField v-model="draft.stages" label="Torques of the rounds" path="stages" :hint="stagesHint" />
    <TextField
      v-model="draft.order"
      label="Order of the bolts"
      path="order"
      :hint="`left empty: ${isPlate && draft.from_hole === draft.to_hole ? 'crosswise' : 'from the middle outward'}`"
    />
    <TextField v-model="draft.fasteners" label="Fasteners" path="fasteners" />
    <template v-if="isPlate">
      <TextField v-model="draft.gasket" label="Gasket under it" path="gasket" hint="empty: none" />
      <ChoiceField v-model="draft.fixture" label="Which plate" :choices="plates" path="fixture" />
      <div class="grid grid-cols-2 gap-2">
        <TextField v-model="draft.from_hole" label="From hole" path="from_hole" whole />
        <TextField v-model="draft.to_hole" label="to hole" path="to_hole" whole />
      </div>
    </template>
    <button type="submit" class="act justify-self-start max-sm:col-span-2 sm:col-start-1" :disabled="busy">
      Tighten it bolt by bolt
    </button>
    <RefusalNote class="col-span-full" :refusal="refusal" />
  </form>
</template>
