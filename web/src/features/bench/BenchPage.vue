<script setup lang="ts">
import { computed, ref } from 'vue'

import { bareUnit } from '@/shared/format/bareUnit'
import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { zeroWords } from '@/shared/format/zero'
import { useJob } from '@/shared/state/job'
import { useAloud } from '@/shared/state/useAloud'
import { useGaugeAt } from '@/shared/state/useGaugeValue'
import { unit } from '@/shared/state/preferences'
import { useTaking, useTakingKeys } from '@/shared/state/useTaking'
import { useJobUndo } from '@/shared/state/useUndo'
import BareHint from '@/shared/ui/BareHint.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TakenLine from '@/shared/ui/TakenLine.vue'
import UndoButton from '@/shared/ui/UndoButton.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'
import UnreadableForm from '@/shared/ui/UnreadableForm.vue'
import ZeroDoubts from '@/shared/ui/ZeroDoubts.vue'
import ZeroLook from '@/shared/ui/ZeroLook.vue'

import BenchNote from './BenchNote.vue'
import BenchNumbers from './BenchNumbers.vue'
import BenchRing from './BenchRing.vue'
import BenchTop from './BenchTop.vue'
import { spotKey } from './order'
import { useBench } from './useBench'

/** Full screen, one thing to measure now: hole, clock hand, what the gauge says, one large key. */
const job = useJob()
const undo = useJobUndo(() => ({
  hole: spot.value?.hole ?? null,
  part: spot.value ? `hole-${spot.value.hole}` : '',
}))
const bench = useBench(job, undo)
const { lens, quantity, spot, hole, taken, refusal, busy, pass } = bench
const block = computed(() => job.block.value)
const setup = computed(() => block.value?.setups.find((one) => one.quantity === quantity.value))
const gaugeNow = useGaugeAt(
  () => setup.value?.gauge.gauge_id ?? null,
  () => spot.value && { job_id: job.jobId, ...spot.value, quantity: quantity.value },
)
const { gauge, live, trouble } = gaugeNow
const digits = computed(() => {
  const value = gauge.value?.value_m
  if (!live.value || typeof value !== 'number') return '– – –'
  return lens.value === 'protrusion'
    ? exactSmall(value, unit.value, { signed: true })
    : lengthText(value, SIZE_WITH[unit.value])
})
const shownUnit = computed(() => (lens.value === 'protrusion' ? unit.value : SIZE_WITH[unit.value]))
/** Where the tip stands on the ring, moving with the gauge. */
const tip = computed(() => {
  const value = gauge.value?.value_m
  if (!live.value || spot.value === null || typeof value !== 'number') return null
  return { hole: spot.value.hole, hour: spot.value.hour, value: value + (setup.value?.zero_m ?? 0) }
})
const circumstances = computed(() =>
  [gauge.value?.name, zeroWords(setup.value), setup.value?.land, setup.value?.hold_down]
    .filter(Boolean)
    .join(' · '),
)
const saidUnreadable = computed(
  () => hole.value?.unreadable.find((one) => one.hour === spot.value?.hour)?.reason ?? '',
)
const doubts = computed(() => (block.value?.doubts ?? []).filter((one) => one.quantity === quantity.value))
const allRead = computed(() => bench.missing.value.length === 0)

const field = ref<HTMLInputElement | null>(null)
const taking = useTaking({
  drafts: `vallo-bench-typed-${job.jobId}`,
  spot: () => `${lens.value}·${spot.value ? spotKey(spot.value) : ''}`,
  capture: bench,
  said: () => (live.value && gauge.value ? gauge.value.text : null),
  trouble: () => trouble.value,
  line: () => field.value,
})
const { typed, takeFromGauge, takeTyped, again } = taking
/** The reading taken last, once the block has it; it is told how its mark stands. */
const row = computed(() => block.value?.readings.find((one) => one.reading_id === taken.id.value))
useAloud({
  next: () => (spot.value ? `hole ${spot.value.hole} at ${spot.value.hour}` : ''),
  taken: () => taken.words.value,
  isKnown: () => taken.id.value === '' || row.value !== undefined,
  verdict: () => {
    const at = row.value
    const read = at && lens.value === 'protrusion' && block.value?.holes.find((one) => one.number === at.hole)
    return (read && read.marks.find((one) => one.hour === at.hour && !one.past)?.state) || ''
  },
})
const on = () => bench.step(1)
const back = () => bench.step(-1)
useTakingKeys(bench, taking, { ArrowRight: on, ']': on, ArrowLeft: back, '[': back })
</script>

<template>
  <main v-if="block" class="flex min-h-screen flex-1 flex-col">
    <BenchTop :block="block" :bench="bench" />
    <div
      class="grid flex-1 content-start gap-x-8 gap-y-2 px-4 py-2 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]"
    >
      <section class="min-w-0 lg:col-start-2" aria-label="Now">
        <h1 class="text-2xl leading-tight font-bold sm:text-4xl">
          <template v-if="spot">Hole {{ spot.hole }} at {{ spot.hour }} h</template>
          <template v-else-if="block.holes.some((one) => one.liner)">Every position is read</template>
          <template v-else>Nothing to read: every liner is out</template>
        </h1>
        <p v-if="spot && hole && !hole.liner && lens === 'protrusion'" class="text-lg text-ink-soft">
          As found: the first reading writes down that a liner nobody knows yet stands in it.
        </p>
        <p v-if="!spot && block.holes.some((one) => one.liner)" class="text-lg text-ink-soft">
          Choose a hole above to read it again, or measure the whole block anew.
        </p>
        <p v-if="allRead && spot" class="text-lg text-in">
          Every position is read{{ pass ? ' in this pass' : '' }}.
        </p>
        <p class="flex items-baseline gap-3" aria-live="off">
          <span
            class="num text-7xl leading-none font-bold sm:text-9xl"
            :class="live ? '' : 'text-ink-soft'"
            data-live
            >{{ digits }}</span
          >
          <span class="text-3xl text-ink-soft">{{ shownUnit }}</span>
        </p>
        <p
          class="min-h-6"
          :class="trouble ? 'font-bold text-unsure' : 'text-ink-soft'"
          role="status"
          aria-label="Gauge"
        >
          {{ trouble || circumstances }}
        </p>
        <RefusalChoices class="my-2 text-lg" :refusal="refusal" @answer="again" @read-before="again" />
        <div class="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4">
          <button
            type="button"
            class="act col-span-2 min-h-16 text-2xl"
            :disabled="!live || !spot || busy"
            title="Space, or the pedal"
            @click="takeFromGauge()"
          >
            Take
          </button>
          <button
            type="button"
            class="quiet min-h-16 text-lg"
            :disabled="!live || !spot || busy"
            title="R"
            @click="takeFromGauge('repeat')"
          >
            Repeat
          </button>
          <UndoButton
            class="min-h-16 text-lg"
            :undo="undo"
            :asked="refusal !== null"
            @undo="bench.takeBack()"
          />
        </div>
        <UndoNote :undo="undo" />
        <TakenLine class="pt-2" :taken="taken" />
        <ZeroDoubts :doubts="doubts" :job-id="job.jobId" @settled="job.reload()" />
        <BenchNote
          v-if="taken.id.value"
          :reading-id="taken.id.value"
          :words="taken.words.value"
          :undo="undo"
        />
      </section>
      <BenchRing
        class="mx-auto w-full max-w-64 sm:max-w-md lg:col-start-1 lg:row-span-2 lg:row-start-1 lg:max-w-[min(40rem,74vh)]"
        :hole="hole"
        :lens="lens"
        :hour="spot?.hour ?? null"
        :preview="tip"
      />
      <section class="min-w-0 lg:col-start-2" aria-label="So far">
        <BenchNumbers v-if="hole && spot" :block="block" :hole="hole" :hour="spot.hour" :lens="lens" />
        <form class="mt-4 flex gap-3" @submit.prevent="takeTyped">
          <label for="bench-typed" class="sr-only">Type a reading</label>
          <input
            id="bench-typed"
            ref="field"
            v-model="typed"
            class="num min-h-14 w-full max-w-56 border-2 border-ink bg-sheet px-3 text-2xl"
            autocomplete="off"
            maxlength="60"
            placeholder="or type it"
          />
          <button type="submit" class="quiet min-h-14 text-lg" :disabled="typed.trim() === ''">
            Take typed
          </button>
        </form>
        <BareHint :text="typed" :quantity="quantity" :bare="bareUnit(quantity, unit)" />
        <UnreadableForm
          v-if="hole && spot && lens === 'protrusion'"
          :key="`${spot.hole}·${spot.hour}`"
          :said="saidUnreadable"
          what="position"
          example="a stud in the way"
          @say="bench.sayUnreadable"
        />
        <details class="mt-2">
          <summary class="min-h-8 cursor-pointer">Look at the zero again</summary>
          <ZeroLook :quantity="quantity" :job-id="job.jobId" @looked="job.reload()" />
        </details>
      </section>
    </div>
  </main>
</template>
