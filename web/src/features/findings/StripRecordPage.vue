<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'

import { ask } from '@/api/ask'
import { type FindingView, readStripRecord, type StripRecordView } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { useJobUndo } from '@/shared/state/useUndo'
import { useLoaded } from '@/shared/state/useLoaded'
import NoteDialog from '@/shared/ui/NoteDialog.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import FindingCells from './FindingCells.vue'
import FindingForm from './FindingForm.vue'
import SuspectList from './SuspectList.vue'
import WaiverList from './WaiverList.vue'

/** The engine as it was found: by hole and part, what it leads to suspect, what is not read and by whose name. */
const job = useJob()
const { data, refusal, load } = useLoaded<StripRecordView>(() =>
  ask(readStripRecord({ path: { job_id: job.jobId } })),
)
onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
/** What was found of which notes are looked at. */
const noted = ref<FindingView | null>(null)
const undo = useJobUndo(() => ({ hole: noted.value?.hole ?? null, part: '' }))
const holes = computed(() => job.block.value?.holes.map((hole) => hole.number) ?? [])
const ofBlock = computed(() => data.value?.findings.filter((one) => one.hole === null) ?? [])
const leaks = (hole: number): FindingView | null =>
  data.value?.findings.filter((one) => one.hole === hole && one.percent !== null).at(-1) ?? null
</script>

<template>
  <main class="flex-1 px-5 py-3">
    <RefusalNote v-if="!data" :refusal="refusal" />
    <p v-if="!data && !refusal" class="py-6 text-ink-soft" aria-busy="true">The record is being loaded.</p>
    <template v-if="data && job.block.value">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <h1 class="text-xl">Strip record</h1>
        <p class="text-ink-soft">{{ job.block.value.job.complaint || 'no complaint written down' }}</p>
      </div>
      <div class="mt-3 grid gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,7fr)_minmax(0,4fr)]">
        <div class="min-w-0">
          <div class="relative overflow-x-auto">
            <table class="w-full min-w-[38rem] text-left" aria-label="Found by hole">
              <thead>
                <tr class="border-b border-ink text-sm text-ink-soft">
                  <th class="py-1 pr-3 font-normal">hole</th>
                  <th class="pr-3 font-normal">condition</th>
                  <th class="pr-3 font-normal">gasket and fire ring</th>
                  <th class="w-36 pr-3 font-normal">leak-down</th>
                  <th class="font-normal">rings, stud holes and more</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="hole in holes" :key="hole" class="border-b border-rule align-top">
                  <th class="py-1.5 pr-3">{{ hole }}</th>
                  <td class="py-1.5 pr-3">
                    <FindingCells
                      :findings="data.findings"
                      :hole="hole"
                      :kinds="['condition']"
                      @notes="noted = $event"
                    />
                  </td>
                  <td class="py-1.5 pr-3">
                    <FindingCells
                      :findings="data.findings"
                      :hole="hole"
                      :kinds="['gasket and fire ring']"
                      @notes="noted = $event"
                    />
                  </td>
                  <td class="py-1.5 pr-3">
                    <template v-if="leaks(hole)">
                      <span class="num">{{ leaks(hole)?.percent }} %</span>
                      <svg
                        viewBox="0 0 100 8"
                        preserveAspectRatio="none"
                        class="block h-2 w-full"
                        aria-hidden="true"
                      >
                        <rect width="100" height="8" class="fill-iron" />
                        <rect
                          :width="leaks(hole)?.percent ?? 0"
                          height="8"
                          :class="(leaks(hole)?.percent ?? 0) >= 20 ? 'fill-unsure' : 'fill-part'"
                        />
                      </svg>
                      <span class="text-sm text-ink-soft">{{ leaks(hole)?.word }}</span>
                    </template>
                    <span v-else class="text-ink-soft">–</span>
                  </td>
                  <td class="py-1.5">
                    <FindingCells
                      :findings="data.findings"
                      :hole="hole"
                      :kinds="[
                        'ring',
                        'stud hole',
                        'symptom',
                        'prior work',
                        'mark on deck or ledge',
                        'wear of the seat',
                      ]"
                      @notes="noted = $event"
                    />
                  </td>
                </tr>
                <tr v-if="ofBlock.length" class="border-b border-rule align-top">
                  <th class="py-1.5 pr-3">block</th>
                  <td colspan="4" class="py-1.5">
                    <FindingCells
                      :findings="data.findings"
                      :hole="null"
                      :kinds="[
                        'condition',
                        'gasket and fire ring',
                        'symptom',
                        'prior work',
                        'ring',
                        'stud hole',
                      ]"
                      long
                      @notes="noted = $event"
                    />
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <FindingForm class="mt-4" :forms="data.forms" :holes="holes" />
        </div>
        <div class="grid content-start gap-6">
          <SuspectList :suspects="data.suspects" :job-id="job.jobId" />
          <WaiverList :record="data" :job-id="job.jobId" />
        </div>
      </div>
      <NoteDialog
        v-if="noted"
        :key="noted.finding_id"
        open
        found
        :reading-id="noted.finding_id"
        :where="`${noted.part} ${noted.word}`"
        :undo="undo"
        @close="noted = null"
        @added="load()"
      />
    </template>
  </main>
</template>
