<script setup lang="ts">
import { computed, onBeforeUnmount, watch } from 'vue'

import { ask } from '@/api/ask'
import {
  beginCutRun,
  type CutHoleView,
  type HolePlanView,
  type HoleView,
  noteOnRun,
  readCutRun,
  type RunMarkKind,
} from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { exactSmall, sizeText } from '@/shared/format/lengths'
import { STATE_TONE } from '@/shared/format/tones'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { useForm } from '@/shared/ui/useForm'
import { useRouter } from 'vue-router'

/** A ledge that was cut, proved: burr first, then square, depth, width, stop against gauge; and what follows. */
const props = defineProps<{ hole: HoleView; plan: HolePlanView | null }>()
const job = useJob()
const router = useRouter()
const { refusal, busy, send } = useForm()
const { data, load } = useLoaded<CutHoleView>(
  () => ask(readCutRun({ path: { hole_id: props.hole.hole_id } })),
  () => props.hole.hole_id,
)
onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
watch(
  () => job.block.value?.event,
  () => void load(),
)
const proof = computed(() => data.value?.proof ?? null)
const row = (kind: string) => proof.value?.rows.find((one) => one.kind === kind)
const asksBurr = computed(() => proof.value?.run_id && row('burr knocked off')?.state === 'not measured')
const asksWidth = computed(() => proof.value?.run_id && row('width')?.state === 'not measured')

function say(kind: RunMarkKind): Promise<void> {
  return send(async () => {
    const path = { hole_id: props.hole.hole_id, run_id: proof.value?.run_id ?? '' }
    const body = { run_mark_id: newId(), kind, person_id: personId.value }
    await ownChange(job.jobId, () => ask(noteOnRun({ path, body })))
    await refresh(job.jobId)
    await load()
  })
}
/** What is short is cut to the same depth for the same shim, from where the ledge stands now. */
function goOn(): Promise<void> {
  return send(async () => {
    const cut = props.hole.last_cut
    const depth = `${Number(cut?.depth_um ?? 0) / 1000} mm`
    const shim = `${Number(cut?.shim_um ?? 0) / 1000} mm`
    const body = {
      run_id: newId(),
      depth,
      shim,
      hold_reason: 'the rest of the cut before',
      person_id: personId.value,
    }
    await ownChange(
      job.jobId,
      async () => void (await ask(beginCutRun({ path: { hole_id: props.hole.hole_id }, body }))),
    )
    await refresh(job.jobId)
    await router.push({ name: 'cut-run', params: { job: job.jobId, hole: String(props.hole.number) } })
  })
}
</script>

<template>
  <section v-if="proof" class="mt-4" aria-label="Proof of the ledge">
    <h2 class="flex items-baseline border-b border-ink text-lg">
      Proof of the ledge
      <span
        class="ml-auto text-base font-normal"
        :class="proof.proved ? 'font-bold text-in' : 'text-unsure'"
        >{{ proof.proved ? 'proved' : 'not proved yet' }}</span
      >
    </h2>
    <ul>
      <li
        v-for="one in proof.rows"
        :key="one.kind"
        class="flex items-center gap-3 border-b border-rule py-1.5"
      >
        <StateGate :state="one.state" />
        <b class="w-44">{{ one.kind }}</b>
        <span class="flex-1" :class="one.state === 'in' ? '' : STATE_TONE[one.state]"
          ><PhraseText :phrase="one.words"
        /></span>
        <button
          v-if="one.kind === 'burr knocked off' && asksBurr"
          type="button"
          class="quiet min-h-11"
          :disabled="busy"
          @click="say('burr knocked off')"
        >
          It is off
        </button>
        <button
          v-if="one.kind === 'width' && asksWidth"
          type="button"
          class="quiet min-h-11"
          :disabled="busy"
          @click="say('shim lies in the counterbore')"
        >
          It lies flat
        </button>
        <RouterLink
          v-if="one.kind === 'depth' && one.state === 'not measured' && !asksBurr"
          class="act inline-flex items-center"
          :to="{ name: 'bench', params: { job: job.jobId, lens: 'counterbore', hole: hole.number } }"
          >Read four</RouterLink
        >
      </li>
    </ul>
    <p v-if="proof.further_passes !== null" class="mt-2 flex flex-wrap items-center gap-3">
      <b class="text-unsure">Short:</b>
      {{ proof.further_passes }} passes<template v-if="proof.further_part_m">
        and {{ exactSmall(proof.further_part_m, unit) }} {{ unit }}</template
      >
      more.
      <button type="button" class="quiet min-h-11" :disabled="busy" @click="goOn">Go on cutting</button>
    </p>
    <p v-if="proof.over_m > 0" class="mt-2">
      <b class="text-out">{{ exactSmall(proof.over_m, unit) }} {{ unit }} too deep.</b>
      <template v-if="plan?.plan">
        Worked out anew with the next shim: cut to {{ sizeText(plan.plan.depth_m, unit) }}, fit a
        {{ sizeText(plan.plan.shim_m, unit) }} shim.
      </template>
      <RouterLink class="link ml-1" :to="{ name: 'cut-plan', params: { job: job.jobId } }"
        >What it does to its neighbours</RouterLink
      >
    </p>
    <p v-if="proof.proved && proof.next_hole" class="mt-2">
      <RouterLink class="link" :to="{ name: 'cut-run', params: { job: job.jobId, hole: proof.next_hole } }"
        >Next in the plan: hole {{ proof.next_hole }}</RouterLink
      >
    </p>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
