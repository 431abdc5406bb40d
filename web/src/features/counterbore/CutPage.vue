<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { ask } from '@/api/ask'
import { type HolePlanView, readCutPlan } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import AfterCut from './AfterCut.vue'
import CutForm from './CutForm.vue'
import FitForm from './FitForm.vue'
import LedgeProof from './LedgeProof.vue'
import PlanView from './PlanView.vue'

/** One hole from plan to fit: what to cut and which shim, then recording what was done. */
const job = useJob()
const route = useRoute()
const otherLiner = ref('')

const hole = computed(
  () => job.block.value?.holes.find((one) => one.number === Number(route.params['hole'])) ?? null,
)
const liners = computed(() => job.block.value?.liners ?? [])
const linerOut = computed(() => hole.value?.liner === null)

watch(
  () => hole.value?.hole_id,
  () => (otherLiner.value = ''),
)
/** Of one hole with one liner: what comes late for another is dropped, and never shown for this one. */
const {
  data: plan,
  refusal,
  load,
} = useLoaded<HolePlanView | null>(
  async () => {
    const id = hole.value?.hole_id
    if (!id) return null
    return ask(readCutPlan({ path: { hole_id: id }, query: { liner_mark: otherLiner.value } }))
  },
  () => `${hole.value?.hole_id} ${otherLiner.value}`,
)
watch(
  () => job.block.value?.event,
  () => void load(),
)
</script>

<template>
  <main v-if="hole" class="grid flex-1 content-start lg:grid-cols-[minmax(0,1fr)_25rem]">
    <section class="min-w-0 px-5 py-3" aria-label="Cut plan">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <RouterLink :to="{ name: 'home', params: { job: job.jobId, hole: hole.number } }" class="link text-sm"
          >Block</RouterLink
        >
        <h1 class="text-xl">Hole {{ hole.number }}: cut and shim</h1>
        <RouterLink
          class="act inline-flex min-h-11 items-center"
          :to="{ name: 'cut-run', params: { job: job.jobId, hole: hole.number } }"
          >Cut it pass by pass</RouterLink
        >
        <RouterLink class="link" :to="{ name: 'options', params: { job: job.jobId, hole: hole.number } }"
          >What else could be done</RouterLink
        >
        <label class="ml-auto text-sm text-ink-soft"
          >for liner
          <select v-model="otherLiner" class="rounded border border-rule bg-sheet px-2 py-1 text-ink">
            <option value="">
              {{ plan?.liner_mark && !otherLiner ? `${plan.liner_mark}, as it is` : 'the one in it' }}
            </option>
            <option v-for="one in liners" :key="one.liner.mark" :value="one.liner.mark">
              {{ one.liner.mark }}{{ one.hole ? ` (hole ${one.hole})` : '' }}
            </option>
          </select>
        </label>
      </div>
      <RefusalNote :refusal="refusal" />
      <AfterCut v-if="linerOut && hole.last_cut" :hole="hole" :liner-mark="plan?.liner_mark ?? ''" />
      <LedgeProof v-if="linerOut && hole.last_cut" :hole="hole" :plan="plan" />
      <details v-if="linerOut && hole.last_cut && plan" class="pt-4">
        <summary class="cursor-pointer font-bold">Cut it again</summary>
        <PlanView :plan="plan" :hole-id="hole.hole_id" />
      </details>
      <PlanView v-else-if="plan" :plan="plan" :hole-id="hole.hole_id" />
    </section>
    <aside class="grid content-start gap-6 border-rule px-5 py-3 lg:border-l">
      <template v-if="linerOut">
        <FitForm :key="`fit-${hole.hole_id}`" :hole="hole" :liners="liners" :plan="plan" />
        <CutForm :key="`again-${hole.hole_id}`" :hole="hole" :plan="plan" :again="hole.last_cut !== null" />
      </template>
      <template v-else>
        <CutForm :key="`cut-${hole.hole_id}`" :hole="hole" :plan="plan" />
        <FitForm :key="`fit-${hole.hole_id}`" :hole="hole" :liners="liners" :plan="plan" />
      </template>
    </aside>
  </main>
  <main v-else class="p-8">
    <p class="text-lg">There is no hole {{ route.params['hole'] }} in this block.</p>
    <RouterLink :to="{ name: 'home', params: { job: job.jobId } }" class="link">To the block</RouterLink>
  </main>
</template>
