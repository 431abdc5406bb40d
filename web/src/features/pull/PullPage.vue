<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'

import { ask } from '@/api/ask'
import { type FitView, type PullMarkKind, readFit } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { useLoaded } from '@/shared/state/useLoaded'
import BenchHead from '@/shared/ui/BenchHead.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { isTyping, onPedal } from '@/shared/ui/typing'

import BeginPull from './BeginPull.vue'
import PullActs from './PullActs.vue'
import PullChart from './PullChart.vue'
import PullNumbers from './PullNumbers.vue'
import PullSection from './PullSection.vue'
import { useDepthGauge } from './useDepthGauge'
import { usePull } from './usePull'

/** A liner as it is pulled in, full screen: how far it is, what is felt, what is expected; one key for a turn. */
const job = useJob()
const route = useRoute()
const hole = computed(() => Number(route.params['hole']))
const now = usePull(job.jobId, () => hole.value)
const { page, pull, refusal, said } = now
const gauge = useDepthGauge(
  job.jobId,
  () => hole.value,
  () => pull.value?.to_go_m ?? null,
)
const { data: fit } = useLoaded<FitView>(
  () => ask(readFit({ path: { job_id: job.jobId, hole: hole.value } })),
  hole,
)
const chosen = computed(() => (typeof route.query['liner'] === 'string' ? route.query['liner'] : null))
const isPulling = computed(() => pull.value?.state === 'pulling')
const next = computed(() => pull.value?.checks.find((one) => !one.done_by) ?? null)
const isLooking = computed(() => pull.value?.state === 'to be looked at first')
const stopped = ref('')
function tap(): void {
  if (now.busy.value || !pull.value) return
  if (isLooking.value && next.value) void now.note(next.value.kind)
  else if (isPulling.value && pull.value.turn_m !== null) void now.note('one turn')
}
const FEEL_KEYS: Record<string, PullMarkKind> = { s: 'smooth', p: 'pops', t: 'twists' }
onPedal(tap)
onKeyStroke(Object.keys(FEEL_KEYS), (event) => {
  const kind = FEEL_KEYS[event.key.toLowerCase()]
  if (kind && isPulling.value && !isTyping(event) && !event.ctrlKey && !event.metaKey) void now.note(kind)
})
onKeyStroke('z', (event) => {
  if ((event.ctrlKey || event.metaKey) && !isTyping(event)) {
    event.preventDefault()
    void now.undo()
  }
})
async function goOn(): Promise<void> {
  if (await now.note('goes on', { words: stopped.value })) stopped.value = ''
}
async function draw(): Promise<void> {
  if (await now.note('drawn out again', { words: stopped.value })) stopped.value = ''
}
</script>

<template>
  <main v-if="job.block.value" class="flex min-h-screen flex-1 flex-col">
    <BenchHead
      :to="{ name: 'fit', params: { job: job.jobId, hole: String(hole) } }"
      out="Fit"
      :job="job.block.value.job.name"
      what="pulling in"
      places="Holes"
      short
      clock="fit"
    >
      <RouterLink
        v-for="one in page?.others ?? []"
        :key="one"
        :to="{ name: 'pull', params: { job: job.jobId, hole: String(one) } }"
        class="flex min-h-11 min-w-14 items-center justify-center rounded border px-2 max-sm:hidden"
        :class="one === hole ? 'border-act bg-act-wash' : 'border-rule'"
        :aria-label="`Hole ${one}`"
        ><b>hole {{ one }}</b></RouterLink
      >
    </BenchHead>
    <RefusalNote v-if="!page" class="m-5" :refusal="now.missing.value" />
    <template v-else-if="!pull && page.is_home">
      <p class="p-6 text-lg">
        A liner is in hole {{ page.hole }}, and no pull of it is on record.
        <RouterLink class="link" :to="{ name: 'fit', params: { job: job.jobId, hole: String(hole) } }"
          >Its fit</RouterLink
        >
      </p>
    </template>
    <BeginPull
      v-else-if="!pull"
      :now="now"
      :page="page"
      :liners="fit?.liners ?? []"
      :chosen="chosen ?? fit?.liner ?? null"
    />
    <div
      v-else
      class="grid flex-1 content-start gap-x-5 gap-y-3 px-4 py-3 lg:grid-cols-[minmax(0,30fr)_minmax(0,40fr)_minmax(0,33fr)]"
    >
      <section class="hidden min-w-0 lg:block" aria-label="Where it stands">
        <PullSection :page="page" :pull="pull" />
      </section>
      <section class="min-w-0" aria-label="Depth and force">
        <PullNumbers :pull="pull" :elapsed="now.elapsed.value" :length="page.length_m" />
        <p v-if="said" class="mt-1 font-bold" role="status" aria-label="Said">{{ said }}</p>
        <RefusalNote v-if="refusal" :refusal="refusal" />
        <PullChart class="mt-1 max-sm:hidden" :page="page" :pull="pull" />
        <ul
          v-if="
            pull.state === 'home' || pull.state.startsWith('touched') || pull.state === 'stopped half-way'
          "
          class="mt-1 grid gap-1"
        >
          <li
            v-for="(one, at) in pull.curve"
            :key="at"
            class="border-l-4 py-0.5 pl-3 text-sm"
            :class="
              one.says === 'not told'
                ? 'border-rule'
                : one.says === 'as expected' || one.says === 'true seat'
                  ? 'border-in'
                  : 'border-unsure'
            "
          >
            <PhraseText :phrase="one.words" />
          </li>
        </ul>
      </section>
      <PullActs
        v-model:words="stopped"
        :now="now"
        :page="page"
        :pull="pull"
        :gauge="gauge"
        :looking="isLooking"
        :job-id="job.jobId"
        @tap="tap"
        @go-on="goOn"
        @draw="draw"
      />
    </div>
  </main>
</template>
