<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import { lengthText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import CaseCard from './CaseCard.vue'
import CauseRows from './CauseRows.vue'
import CheckPanel from './CheckPanel.vue'
import KeepCase from './KeepCase.vue'
import OpenExperiment from './OpenExperiment.vue'
import ResidualStems from './ResidualStems.vue'
import TriedTable from './TriedTable.vue'
import { useCauses } from './useCauses'
import { headline, isScatter, nameOf } from './words'

/** What does not add up: every reading less what it ought to be, causes by weight, one check after the other. */
const job = useJob()
const { matter, view, refusal, draft, form, picked, check, open, begin, settle, keep } = useCauses(job)
const small = (metres: number) =>
  `${lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0 })} ${unit.value}`
const MATTERS = [
  { key: 'heights', label: 'Heights' },
  { key: 'bores', label: 'Bores' },
] as const
const chart = ref<HTMLElement | null>(null)
const { width } = useElementSize(chart)
/** Stems and the rows below them stand on one scale: where the window leaves room, in one column. */
const wide = computed(() => Math.max(280, Math.min(560, Math.round(width.value) || 540)))
/** A refusal stands where the thing was begun: at the check, or at the form of one's own. */
const started = ref(false)
function start(change: string, expected: string): void {
  started.value = true
  void begin(change, expected, check.value)
}
function startOwn(change: string, expected: string): void {
  started.value = false
  void begin(change, expected, null)
}
const top = computed(() => view.value?.explained[0] ?? null)
/** A case is kept once something was found out: one cause is sure and nothing is held, or all adds up again. */
const SURE = 0.9
const settled = computed(() => {
  const now = view.value
  if (!now || open.value || !now.tried.some((one) => !one.is_open)) return false
  const sure = top.value !== null && top.value.weight >= SURE && !isScatter(top.value) && !now.hold
  return !now.explained.length || sure
})
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-2 px-5 py-2">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <RouterLink class="link" :to="{ name: 'home', params: { job: job.jobId } }">Block</RouterLink>
      <h1 class="text-xl">What does not add up</h1>
      <div role="group" aria-label="Of what" class="flex">
        <button
          v-for="one in MATTERS"
          :key="one.key"
          type="button"
          class="min-h-11 border border-ink px-3"
          :class="matter === one.key ? 'bg-ink text-paper' : ''"
          :aria-pressed="matter === one.key"
          @click="matter = one.key"
        >
          {{ one.label }}
        </button>
      </div>
      <p v-if="view?.holes.length" class="text-sm text-ink-soft">
        {{ matter === 'heights' ? 'as read less as the parts say' : 'each diameter less its bore’s middle' }},
        {{ unit }} · <span class="num">{{ view.far_off.toFixed(1) }}</span> joint u off; below three nothing
        is claimed
      </p>
      <p v-if="view?.hold" class="ml-auto font-bold text-unsure">Hold: {{ view.hold }}</p>
    </header>
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">The causes are being weighed.</p>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="view?.why_not" class="max-w-3xl border-l-4 border-unsure py-1 pl-4 text-lg font-bold">
      {{ view.why_not }}
    </p>
    <template v-else-if="view">
      <p class="text-2xl font-bold">{{ headline(view, small) }}</p>
      <div
        class="grid grid-cols-[minmax(0,1fr)] items-start gap-x-6 gap-y-3 lg:grid-cols-[13.25rem_minmax(0,35rem)_minmax(0,1fr)]"
      >
        <p class="text-sm text-ink-soft max-lg:hidden">
          Stems: what each reading leaves over, with its ±. Band: ± of the middle of a hole. A cause is liked
          the better the more of all stems it explains at once.
        </p>
        <div ref="chart"><ResidualStems v-if="width" :holes="view.holes" :wide="wide" /></div>
        <div class="grid gap-3">
          <OpenExperiment
            v-if="open"
            v-model="draft"
            :one="open"
            :busy="form.busy.value"
            :refusal="form.refusal.value"
            @settle="settle"
          />
          <CheckPanel
            v-else-if="check && !settled"
            v-model:picked="picked"
            :view="view"
            :check="check"
            :busy="form.busy.value"
            @begin="start"
          />
          <RefusalNote v-if="started && !open" :refusal="form.refusal.value" />
          <p v-if="settled && view.kept" class="border-l-4 border-in py-1 pl-3 font-bold text-in">
            Kept as a case: {{ view.kept }}.
          </p>
          <KeepCase
            v-else-if="settled"
            :symptom="headline(view, small)"
            :cause="top ? nameOf(top) : ''"
            :busy="form.busy.value"
            :refusal="form.refusal.value"
            @keep="keep"
          />
        </div>
      </div>
      <CauseRows
        v-if="view.explained.length"
        :view="view"
        :check="open || settled ? null : check"
        :wide="wide"
      />
      <TriedTable
        v-if="view.explained.length || view.tried.length"
        v-model="draft"
        :tried="view.tried"
        :has-open="open !== null"
        :busy="form.busy.value"
        :refusal="form.refusal.value"
        @begin="startOwn"
      />
      <section v-if="view.cases.length" aria-label="Cases that lie like this one">
        <h2 class="text-lg">Cases of the shop that lie like this one</h2>
        <CaseCard v-for="one in view.cases" :key="one.case_id" :one="one" />
      </section>
      <p v-for="one in view.missing" :key="one" class="text-sm text-unsure">Left out: {{ one }}.</p>
      <p class="caution">
        One change at a time, and nothing that cannot be undone: no part is bought and no metal cut for a
        number that contradicts another. <RouterLink class="link" :to="{ name: 'cases' }">Cases</RouterLink> ·
        <RouterLink class="link" :to="{ name: 'known-causes' }">causes and checks of the shop</RouterLink>
      </p>
    </template>
  </main>
</template>
