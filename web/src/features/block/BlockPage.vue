<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useJob } from '@/shared/state/job'
import { isClockLens } from '@/shared/subjects'

import BlockNeeds from './BlockNeeds.vue'
import BoreAside from './BoreAside.vue'
import BoreLens from './BoreLens.vue'
import ClockLensView from './ClockLensView.vue'
import EntryLine from './EntryLine.vue'
import FitAside from './FitAside.vue'
import FitLens from './FitLens.vue'
import HoleAside from './HoleAside.vue'
import LensBar from './LensBar.vue'
import PhoneBlock from './PhoneBlock.vue'
import { useBlockPlace } from './place'
import TapePanel from './TapePanel.vue'
import { useBlockKeys } from './useBlockKeys'
import { useBlockActs } from './useBlockActs'
import { useBores } from './useBores'
import { useEntry } from './useEntry'
import { useFits } from './useFits'
import WaitingLens from './WaitingLens.vue'
import { useNarrow } from '@/shared/state/useNarrow'
import { useJobUndo } from '@/shared/state/useUndo'
import SetupDialog from '@/shared/ui/SetupDialog.vue'
import WhyPanel from './WhyPanel.vue'

/** The block is the home of a job: every hole, the one chosen, what it needs, and the line to type on. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const block = computed(() => job.block.value)
const place = useBlockPlace(() => block.value)
const { lens, number, hour, open, quantity } = place
const bores = useBores(job, place)
const fits = useFits(job, place)
const undo = useJobUndo(() => ({
  hole: number.value,
  part: number.value === null ? '' : `hole-${number.value}`,
}))
const entry = useEntry(job, place, bores, undo)
const line = ref<{ focus: () => void } | null>(null)
const { preview, borePreview } = entry
const hole = computed(() => block.value?.holes.find((one) => one.number === number.value) ?? null)
const bore = computed(() => (lens.value === 'bore' ? bores.chosen.value : null))
const fit = computed(
  () => fits.value?.fits.find((one) => one.hole === (number.value ?? fits.value?.fits[0]?.hole)) ?? null,
)
const clock = computed(() => (isClockLens(lens.value) ? lens.value : null))
const isNarrow = useNarrow()
const hasAside = computed(() => {
  const isBeside = (clock.value && hole.value) || bore.value || fit.value
  if (isNarrow.value && isBeside) return open.value === 'tape' || open.value === 'why'
  return clock.value !== null || lens.value === 'bore' || fit.value !== null
})
const offered = computed(() => block.value?.lenses.find((one) => one.name === lens.value) ?? null)
/** A lens that this construction has not leads to the one it is looked at first. */
watch(
  [block, offered],
  () => {
    if (block.value && !offered.value)
      void router.replace({ name: 'home', params: route.params, query: route.query })
  },
  { immediate: true },
)
const previewHere = computed(() =>
  lens.value === 'protrusion' && preview.value?.hole === number.value ? preview.value : null,
)
const tip = computed(() => (borePreview.value?.hole === number.value ? borePreview.value.value : null))

function choose(to: number, at: number | null = null): void {
  place.go({ hole: to, hour: at })
}

const { act, why, bench, grid } = useBlockActs(job, place, bores, () => line.value?.focus())

/** What is asked about was never recorded: it is dropped, nothing else is taken back. */
function takeBack(): void {
  if (entry.refusal.value !== null) entry.drop()
  else void undo.undo()
}

function typeOnLine(character: string): void {
  entry.type(entry.draft.value.text + character)
  line.value?.focus()
}

useBlockKeys(() => block.value, place, { type: typeOnLine, act, undo: takeBack, bench, grid, bores })
</script>

<template>
  <template v-if="block">
    <main class="grid flex-1 grid-cols-[minmax(0,1fr)] content-start lg:grid-cols-[minmax(0,1fr)_27rem]">
      <div class="min-w-0 px-5 py-2 max-lg:px-3 max-lg:py-1">
        <LensBar
          :block="block"
          :lens="lens"
          :quantity="quantity"
          :hole="number"
          @choose="(to) => place.go({ lens: to })"
          @of="(of) => place.go({ of })"
        />
        <PhoneBlock
          v-if="clock && isNarrow"
          :block="block"
          :lens="clock"
          :hole="hole"
          :hour="hour"
          :preview="preview"
          @choose="choose"
          @act="act"
          @why="why"
        />
        <ClockLensView
          v-else-if="clock"
          :block="block"
          :lens="clock"
          :chosen="number"
          :hour="hour"
          :preview="preview"
          @choose="choose"
        />
        <BoreLens
          v-else-if="lens === 'bore'"
          :block="block"
          :bores="bores"
          :chosen="number"
          :preview="borePreview"
          v-on="{ act, why, go: place.go, choose }"
          @level="(level) => place.go({ level })"
          @axis="(axis) => place.go({ axis, level: bores.level.value?.depth_um ?? null })"
        />
        <FitLens
          v-else-if="lens === 'fit' && fits"
          :block="block"
          :fits="fits"
          :chosen="number"
          @choose="choose"
        />
        <WaitingLens
          v-else-if="offered && lens !== 'fit'"
          :key="lens"
          :lens="lens"
          :waiting="offered"
          :job-id="job.jobId"
        />
      </div>
      <aside v-if="hasAside" class="border-rule px-5 py-3 lg:border-l">
        <TapePanel
          v-if="open === 'tape'"
          :block="block"
          :undo="undo"
          :hole="number"
          @close="place.go({ open: '' })"
          @changed="job.reload()"
        />
        <WhyPanel
          v-else-if="open === 'why' && hole"
          :hole="hole"
          :event="block.event"
          @close="place.go({ open: '' })"
        />
        <FitAside
          v-else-if="fit"
          :fit="fit"
          :wanted="fits?.wanted ?? null"
          :is-conversion="fits?.is_conversion ?? false"
        />
        <BoreAside
          v-else-if="bore"
          :bore="bore"
          :level="bores.level.value"
          :axis="bores.axis.value"
          :tip="tip"
          @choose="(at) => place.go(at)"
          @act="act"
          @why="why"
        />
        <HoleAside
          v-else-if="hole && clock"
          :block="block"
          :hole="hole"
          :lens="clock"
          :hour="hour"
          :tip="previewHere?.value ?? null"
          @act="act"
          @why="why"
        />
        <div v-else-if="number !== null && !hole" class="text-lg">
          There is no hole {{ number }}: this block has holes 1 to {{ block.card.holes }}.
        </div>
        <BlockNeeds v-else-if="number === null" :block="block" @choose="choose($event)" />
      </aside>
    </main>
    <EntryLine
      v-if="clock || lens === 'bore'"
      ref="line"
      :bores="bores"
      :block="block"
      :place="place"
      :entry="entry"
      :undo="undo"
      @undo="takeBack"
      @tape="place.go({ open: open === 'tape' ? '' : 'tape' })"
    />
    <SetupDialog
      v-if="quantity !== null"
      :key="quantity"
      :open="open === 'setup'"
      :block="block"
      :job-id="String(route.params['job'])"
      :quantity="quantity"
      @close="place.go({ open: '' })"
      @changed="job.reload()"
    />
  </template>
</template>
