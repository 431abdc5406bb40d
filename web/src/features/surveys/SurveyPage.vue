<script setup lang="ts">
import { computed, ref } from 'vue'

import { useJob } from '@/shared/state/job'
import { useAloud } from '@/shared/state/useAloud'
import { useTaking, useTakingKeys, useTypingAnywhere } from '@/shared/state/useTaking'
import { useJobUndo } from '@/shared/state/useUndo'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import UnreadableForm from '@/shared/ui/UnreadableForm.vue'
import ZeroDoubts from '@/shared/ui/ZeroDoubts.vue'
import { featureOf } from '@/shared/state/catalogue'

import WallTracks from '@/shared/charts/WallTracks.vue'
import DeckGrid from './DeckGrid.vue'
import LinerStart from './LinerStart.vue'
import SurveyAside from './SurveyAside.vue'
import SurveyNow from './SurveyNow.vue'
import SurveyNumbers from './SurveyNumbers.vue'
import SurveyTable from './SurveyTable.vue'
import SurveyTop from './SurveyTop.vue'
import { useSurvey } from '@/shared/state/useSurvey'
import { useSurveyGauge } from '@/shared/state/useSurveyGauge'

/** The bench for any feature: the part drawn with its pattern, one place to read now, one large key. */
const job = useJob()
const undo = useJobUndo(() => ({ hole: survey.value?.part.hole ?? null, part: bench.partKey.value }))
const bench = useSurvey(job, undo)
const { survey, here, at, refusal } = bench
const gauge = useSurveyGauge(job.jobId, bench)
const choosing = ref(false)
const aside = ref<{ lookAtZero: () => void } | null>(null)
const now = ref<{ focus: () => void; blur: () => void } | null>(null)
const drawn = computed(() => featureOf(bench.quantity.value)?.drawing ?? 'tracks')

const taking = useTaking({
  drafts: `vallo-survey-typed-${job.jobId}`,
  spot: () => `${bench.quantity.value}·${bench.partKey.value}·${at.value ?? ''}`,
  capture: bench,
  said: () => gauge.said.value?.text ?? null,
  trouble: () => gauge.words.value,
  line: () => now.value,
})
const { typed, takeFromGauge, takeTyped, again } = taking
const sideways = (way: 'left' | 'right', step: 1 | -1) => () =>
  drawn.value === 'grid' ? bench.move(way) : bench.step(step)
useTakingKeys(bench, taking, {
  ']': () => bench.step(1),
  '[': () => bench.step(-1),
  ArrowRight: sideways('right', 1),
  ArrowLeft: sideways('left', -1),
  ArrowUp: () => bench.move('up'),
  ArrowDown: () => bench.move('down'),
})
useTypingAnywhere(taking, () => now.value)
/** The place read last, once the survey has its reading; it is told how it stands. */
const row = computed(() => {
  const id = bench.taken.id.value
  return survey.value?.places.find((one) => one.readings.some((reading) => reading.reading_id === id))
})
useAloud({
  next: () => (bench.missing.value.length > 0 ? (here.value?.name ?? '') : ''),
  taken: () => bench.taken.words.value,
  isKnown: () => bench.taken.id.value === '' || row.value !== undefined,
  verdict: () => row.value?.state ?? '',
})
</script>

<template>
  <main v-if="job.block.value" class="flex min-h-screen flex-1 flex-col">
    <SurveyTop :block="job.block.value" :bench="bench" />
    <RefusalChoices v-if="!survey" class="px-4 py-3" :refusal="refusal" />
    <div
      v-if="survey"
      class="grid flex-1 grid-cols-[minmax(0,1fr)] content-start gap-x-8 gap-y-3 px-4 py-3 lg:grid-cols-[minmax(0,11fr)_minmax(0,12fr)]"
    >
      <section class="min-w-0 lg:col-start-2" aria-label="Now">
        <SurveyNow
          ref="now"
          v-model:typed="typed"
          :bench="bench"
          :gauge="gauge"
          :undo="undo"
          @take="takeFromGauge()"
          @again="again"
          @repeat="takeFromGauge('repeat')"
          @take-typed="takeTyped"
          @undo="bench.takeBack()"
          @choose="choosing = true"
          @zero="aside?.lookAtZero()"
        />
        <ZeroDoubts class="mt-3" :doubts="survey.doubts" :job-id="job.jobId" @settled="bench.load()" />
        <UnreadableForm
          v-if="here"
          :key="at ?? ''"
          :said="here.unreadable"
          what="place"
          example="a port in the way"
          @say="bench.sayUnreadable"
        />
      </section>
      <div class="min-w-0 self-start lg:sticky lg:top-2 lg:col-start-1 lg:row-span-3 lg:row-start-1">
        <WallTracks
          v-if="drawn === 'tracks'"
          :survey="survey"
          :at="at"
          :tip="gauge.tip.value"
          class="mx-auto max-h-[84vh]"
          @choose="bench.go"
        />
        <DeckGrid
          v-else-if="drawn === 'grid'"
          :survey="survey"
          :block="job.block.value"
          :at="at"
          @choose="bench.go"
        />
        <LinerStart v-else :survey="survey" />
        <SurveyNumbers v-if="drawn !== 'tracks'" class="mt-4" :survey="survey" :job-id="job.jobId" />
      </div>
      <section class="min-w-0 lg:col-start-2" aria-label="So far">
        <SurveyNumbers v-if="drawn === 'tracks'" :survey="survey" :job-id="job.jobId" />
        <details v-if="survey.form && survey.is_diameter" class="mt-2">
          <summary class="min-h-8 cursor-pointer">Every figure, level by level</summary>
          <SurveyTable :survey="survey" :at="at" @choose="bench.go" />
        </details>
      </section>
      <SurveyAside
        ref="aside"
        :key="bench.partKey.value"
        v-model:open="choosing"
        class="lg:col-start-2"
        :survey="survey"
        :bench="bench"
        :job-id="job.jobId"
        :block="job.block.value"
      />
    </div>
  </main>
</template>
