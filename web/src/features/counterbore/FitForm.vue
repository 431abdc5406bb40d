<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import {
  drawLiner,
  type HolePlanView,
  type HoleView,
  type LinerView,
  type ReadyTick,
  recordFitting,
} from '@/api/generated'
import { bareShim } from '@/shared/format/bareUnit'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { personId, unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import { useForm } from '@/shared/ui/useForm'

import { firstPosition } from './next'
import type { ShimDraft } from './shimDraft'
import ShimFields from './ShimFields.vue'

/** The liner that went in, with its shims as measured and which side is up. */
const props = defineProps<{ hole: HoleView; liners: LinerView[]; plan: HolePlanView | null }>()
const job = useJob()
const route = useRoute()
const router = useRouter()
const draft = useLocalStorage(`vallo-fit-${props.hole.hole_id}`, {
  id: '',
  cut: '',
  liner: '',
  shims: [] as ShimDraft[],
})
const { refusal, busy, send, answer } = useForm()
const READY = ['clean and dry', 'lead-in and seals', 'marked, right way round'] as const
const ready = ref<ReadyTick[]>([])
const holdReason = ref('')

const linerChoices = computed(() => [
  { value: '', label: 'Choose the liner' },
  ...props.liners.map((one) => ({
    value: one.liner.mark,
    label: [one.liner.mark, one.liner.make, one.liner.batch, elsewhere(one) && `in hole ${one.hole}`]
      .filter(Boolean)
      .join(' · '),
  })),
])
const elsewhere = (one: LinerView) => one.hole !== null && one.hole !== props.hole.number
/** The hole that the chosen liner stands in now, where it is another one. */
const otherHole = computed(() => {
  const chosen = props.liners.find((one) => one.liner.mark === draft.value.liner)
  return chosen && elsewhere(chosen) ? chosen.hole : null
})
const exchangeWords = computed(() => {
  const mark = props.hole.liner?.mark
  const goes = mark ? `${mark} goes into hole ${otherHole.value}, on the shims that lie there` : ''
  return `${draft.value.liner} is in hole ${otherHole.value}. ${goes || `Hole ${otherHole.value} is empty then`}.`
})
const cutShim = computed(() => {
  const um = Number(props.hole.last_cut?.shim_um ?? 0)
  if (um <= 0) return ''
  return unit.value === 'thou' ? `${Number((um / 25.4).toFixed(2))} thou` : `${(um / 1000).toFixed(3)} mm`
})
/** After a cut the form starts once from what was cut for; measured thickness is left to the micrometer. */
watch(
  () => [props.plan?.liner_mark ?? '', props.hole.last_cut?.cut_id ?? ''] as const,
  ([mark, cut]) => {
    if (mark === '') return
    if (props.hole.liner === null && cut !== '' && draft.value.cut !== cut) {
      draft.value = { id: '', cut, liner: mark, shims: [] }
      if (cutShim.value) addShim(cutShim.value)
    } else if (draft.value.liner === '') {
      draft.value.liner = mark
    }
  },
  { immediate: true },
)

/** A tray list names the liner that is to go in. */
const named = props.liners.find((one) => one.liner.mark === route.query['liner'])
if (named) draft.value.liner = named.liner.mark

function addShim(nominal: string): void {
  draft.value.shims = [...draft.value.shims, { nominal, measured: '', side_up: 'bevel down' }]
}

function put(path: string, text: string): void {
  const [, at, name] = path.split('.')
  const shim = draft.value.shims[Number(at)]
  if (shim && (name === 'nominal' || name === 'measured')) shim[name] = text
}

/** Drawn by itself, the hole is open, and its liner can go elsewhere. */
function draw(): Promise<void> {
  return send(async () => {
    await ask(drawLiner({ path: { hole_id: props.hole.hole_id }, body: { person_id: personId.value } }))
    await job.reload()
  })
}

function record(confirmed = false): Promise<void> {
  draft.value.id ||= newId()
  return send(async () => {
    const { id, liner, shims } = draft.value
    const body = {
      fitting_id: id,
      liner_mark: liner,
      shims,
      bare_unit: bareShim(unit.value),
      confirmed,
      exchange: otherHole.value !== null,
      ready: ready.value,
      hold_reason: holdReason.value,
      person_id: personId.value,
    }
    await ask(recordFitting({ path: { hole_id: props.hole.hole_id }, body }))
    draft.value = { id: '', cut: '', liner: '', shims: [] }
    ready.value = []
    holdReason.value = ''
    await job.reload()
    await router.push(firstPosition(job, 'protrusion', props.hole.number))
  })
}
</script>

<template>
  <form class="grid gap-3" aria-label="Record the fit" @submit.prevent="record()">
    <h2 class="text-lg">{{ hole.liner ? 'Refit, or fit another liner' : 'Fit the liner' }}</h2>
    <p v-if="hole.liner === null && hole.need.action === 'read depth'" class="caution">
      The ledge is not measured since the cut.
      <RouterLink
        class="link"
        :to="{ name: 'block', params: { job: job.jobId, lens: 'counterbore', hole: hole.number } }"
        >Measure it first</RouterLink
      >: afterwards the liner is in the way.
    </p>
    <ChoiceField v-model="draft.liner" label="Liner" :choices="linerChoices" path="liner_mark" />
    <ShimFields v-model="draft.shims" />
    <p class="caution">
      Liners are heavy and sharp at the ends, pullers throw parts: lift with help, stand aside.
    </p>
    <fieldset class="flex flex-wrap gap-x-5 gap-y-1">
      <legend class="text-sm text-ink-soft">Looked at before it goes in</legend>
      <label v-for="tick in READY" :key="tick" class="flex min-h-11 items-center gap-2">
        <input v-model="ready" type="checkbox" class="size-5" :value="tick" />{{ tick }}
      </label>
    </fieldset>
    <HoldReason v-model="holdReason" :refusal="refusal" @pass="record(true)" />
    <RefusalChoices
      v-if="refusal?.code !== 'hold point'"
      :refusal="refusal"
      @answer="(one) => answer(one, put, record)"
    />
    <p v-if="otherHole !== null" class="caution">{{ exchangeWords }} Both are read again.</p>
    <div class="flex flex-wrap gap-3">
      <button type="submit" :class="hole.liner ? 'quiet' : 'act'" :disabled="busy">
        {{ otherHole === null ? 'Record the fit' : `Exchange with hole ${otherHole}` }}
      </button>
      <button v-if="hole.liner" type="button" class="quiet" :disabled="busy" @click="draw">
        Record {{ hole.liner.mark }} as drawn
      </button>
    </div>
    <p class="text-sm text-ink-soft">
      The hole is not measured until its protrusion is read again, held down as the card says.
    </p>
  </form>
</template>
