<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import StateGate from '@/shared/charts/StateGate.vue'
import BenchHead from '@/shared/ui/BenchHead.vue'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { isTyping, onPedal } from '@/shared/ui/typing'

import { clockText } from './dial'
import LedgeUnrolled from './LedgeUnrolled.vue'
import RunChecks from './RunChecks.vue'
import RunEnd from './RunEnd.vue'
import RunFoot from './RunFoot.vue'
import RunNumbers from './RunNumbers.vue'
import StopAside from './StopAside.vue'
import StopDial from './StopDial.vue'
import { useRun } from './useRun'

/** A counterbore as it is cut, full screen: the count, where to stop, what is to go; one key, by pedal, space or tap. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const hole = computed(
  () => job.block.value?.holes.find((one) => one.number === Number(route.params['hole'])) ?? null,
)
const now = useRun(job.jobId, () => hole.value?.hole_id ?? null)
const { run, refusal, said, elapsed } = now
const paused = ref(false)
const reason = ref('')
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`

const isChecking = computed(() => run.value?.state === 'checks before the first pass')
const isOver = computed(() => run.value?.state === 'count is done')
const title = computed(() => {
  if (!run.value) return `Hole ${hole.value?.number}`
  if (isChecking.value) return `Hole ${run.value.hole}: before the first pass`
  if (isOver.value) return `Hole ${run.value.hole}: every pass is counted`
  return `Hole ${run.value.hole}: pass ${run.value.count + 1} is turning`
})
async function pause(): Promise<void> {
  if (!paused.value) await now.mark('stopped')
  paused.value = !paused.value
}
async function finish(): Promise<void> {
  if (await now.finish())
    await router.push({ name: 'cut', params: { job: job.jobId, hole: String(hole.value?.number ?? '') } })
}
function tap(): void {
  if (!run.value || paused.value) return
  const check = run.value.checks.find((one) => !one.done_by)
  if (isChecking.value && check) void now.mark(check.kind)
  else if (!isOver.value) void now.endPass()
}
onPedal(tap)
onKeyStroke('z', (event) => {
  if ((event.ctrlKey || event.metaKey) && !isTyping(event)) {
    event.preventDefault()
    void now.undoPass()
  }
})
</script>

<template>
  <main v-if="job.block.value && hole" class="flex min-h-screen flex-1 flex-col">
    <BenchHead
      :to="{ name: 'cut-plan', params: { job: job.jobId } }"
      out="Cut plan"
      :job="job.block.value.job.name"
      what="counterbore"
      places="Holes"
      short
      clock="cut"
    >
      <RouterLink
        v-for="one in job.block.value.holes"
        :key="one.hole_id"
        :to="{ name: 'cut-run', params: { job: job.jobId, hole: String(one.number) } }"
        class="flex min-h-11 min-w-14 items-center justify-center gap-1 rounded border px-2 max-sm:hidden"
        :class="one.number === hole.number ? 'border-act bg-act-wash' : 'border-rule'"
        :aria-label="`Hole ${one.number}: ${one.state}`"
        ><b>{{ one.number }}</b> <StateGate :state="one.state"
      /></RouterLink>
    </BenchHead>
    <div v-if="!run" class="grid max-w-2xl gap-4 p-6">
      <h1 class="text-3xl">{{ title }}: no run is open</h1>
      <p class="text-lg text-ink-soft">
        It is cut as the chosen plan has it, else as the plan of this hole. Before it begins the hold points
        of the cut are looked at.
      </p>
      <button
        type="button"
        class="act justify-self-start text-lg"
        :disabled="now.busy.value"
        @click="now.begin('', '', reason)"
      >
        Begin the run of hole {{ hole.number }}
      </button>
      <HoldReason v-model="reason" :refusal="refusal" @pass="now.begin('', '', reason)" />
      <RefusalNote v-if="refusal?.code !== 'hold point'" :refusal="refusal ?? now.missing.value" />
      <RouterLink class="link" :to="{ name: 'cut', params: { job: job.jobId, hole: String(hole.number) } }"
        >Plan and record of hole {{ hole.number }}</RouterLink
      >
    </div>
    <template v-else>
      <div class="grid flex-1 content-start lg:grid-cols-[minmax(0,53fr)_minmax(0,47fr)]">
        <section class="min-w-0 px-4 py-3 lg:border-r lg:border-rule" aria-label="Run">
          <div class="flex flex-wrap items-baseline gap-x-4">
            <h1 class="text-2xl lg:text-[1.7rem]">{{ title }}</h1>
            <span v-if="elapsed !== null && !isOver && !paused" class="num ml-auto text-lg"
              ><b>{{ clockText(elapsed) }}</b> of {{ clockText(run.a_pass_s) }}</span
            >
          </div>
          <p class="text-ink-soft">
            to <b class="num text-ink">{{ size(run.depth_m) }}</b> from the deck<template
              v-if="run.liner_mark"
              >, for {{ run.liner_mark }}</template
            >
            on a <b class="num text-ink">{{ size(run.shim_m) }}</b> shim
          </p>
          <RunChecks
            v-if="isChecking"
            class="mt-3"
            :run="run"
            :busy="now.busy.value"
            @check="now.mark($event)"
          />
          <template v-else>
            <RunNumbers class="mt-2" :run="run" />
            <div
              class="mt-3 grid grid-cols-[minmax(0,11fr)_minmax(0,12fr)] gap-x-5 border-t-2 border-rule pt-3 lg:grid-cols-[minmax(0,11fr)_minmax(0,14fr)]"
            >
              <StopDial class="w-full max-w-72" :run="run" />
              <StopAside :run="run" :over="isOver" @vacuum="now.mark('vacuumed')" />
            </div>
            <p v-if="said" class="mt-2 font-bold" role="status" aria-label="Said">{{ said }}</p>
            <RefusalNote v-if="refusal && !refusal.suggestions.length" :refusal="refusal" />
            <RunEnd
              v-if="run.state === 'stop and measure' || isOver || run.measured_m !== null || !run.agree"
              class="mt-2"
              :now="now"
              :run="run"
            />
          </template>
          <p v-for="line in run.caution" :key="line" class="caution mt-2">
            {{ line }} Local rules and licensed practice come first.
          </p>
          <button
            v-if="now.switchThere.value === 'simulated'"
            type="button"
            class="quiet mt-2 min-h-11 text-sm"
            @click="now.press()"
          >
            Press the simulated switch
          </button>
        </section>
        <section class="hidden min-w-0 px-4 py-3 lg:block" aria-label="Ledge">
          <LedgeUnrolled :run="run" class="max-h-[36rem]" />
        </section>
        <div v-if="!isChecking" class="px-4 pb-2 lg:hidden" aria-hidden="true">
          <svg :viewBox="`0 0 ${run.of * 10} 14`" preserveAspectRatio="none" class="block h-8 w-full">
            <rect
              v-for="pass in run.of"
              :key="pass"
              :x="(pass - 1) * 10 + 0.5"
              y="0"
              width="9"
              height="14"
              :class="pass <= run.count ? 'fill-part' : pass === run.count + 1 ? 'fill-act' : 'fill-act-wash'"
            />
          </svg>
        </div>
      </div>
      <RunFoot :now="now" :run="run" :paused="paused" @finish="finish" @pause="pause" />
    </template>
  </main>
  <main v-else class="p-8">
    <p class="text-lg">There is no hole {{ route.params['hole'] }} in this block.</p>
  </main>
</template>
