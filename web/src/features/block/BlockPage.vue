<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useJob } from '@/shared/state/job'

import BlockDeck from './BlockDeck.vue'
import EntryLine from './EntryLine.vue'
import HoleNeeds from './HoleNeeds.vue'
import HoleSection from './HoleSection.vue'
import HoleSummary from './HoleSummary.vue'
import HoleTable from './HoleTable.vue'
import LensBar from './LensBar.vue'
import { nextHour, useBlockPlace } from './place'
import TapePanel from './TapePanel.vue'
import { useBlockKeys } from './useBlockKeys'
import { useEntry } from './useEntry'
import { useJobUndo } from '@/shared/state/useUndo'
import SetupDialog from '@/shared/ui/SetupDialog.vue'
import { STATE_TONE } from '@/shared/format/tones'
import WhyPanel from './WhyPanel.vue'

/** The block is the home of a job: every hole, the one chosen, what it needs, and the line to type on. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const place = useBlockPlace()
const { lens, number, hour, open, quantity } = place
const undo = useJobUndo(() => ({
  hole: number.value,
  part: number.value === null ? '' : `hole-${number.value}`,
}))
const entry = useEntry(job, place, undo)
const line = ref<{ focus: () => void } | null>(null)

const { preview } = entry
const block = computed(() => job.block.value)
const hole = computed(() => block.value?.holes.find((one) => one.number === number.value) ?? null)
const previewHere = computed(() =>
  lens.value === 'protrusion' && preview.value?.hole === number.value ? preview.value : null,
)

function choose(to: number, at: number | null = null): void {
  place.go({ hole: to, hour: at })
}

function act(): void {
  const now = hole.value
  if (!now || !block.value) return
  const params = { job: job.jobId, hole: String(now.number) }
  switch (now.need.action) {
    case 'cut':
    case 'fit':
      return void router.push({ name: 'cut', params })
    case 'read flange':
      return void router.push({
        name: 'liners',
        params: { job: job.jobId },
        query: { liner: now.need.liner_mark },
      })
    case 'read':
      place.go({ lens: 'protrusion', hour: now.need.hours[0] ?? null })
      return line.value?.focus()
    case 'read depth':
      place.go({
        lens: 'counterbore',
        hour:
          nextHour(now, 'counterbore', block.value.card.required_hours, null) ?? now.need.hours[0] ?? null,
      })
      return line.value?.focus()
    case 'explain':
      return place.go({ open: 'why' })
    case 'nothing':
  }
}

function bench(): void {
  void router.push({ name: 'bench', params: { job: job.jobId, lens: lens.value } })
}

/** What is asked about was never recorded: it is dropped, nothing else is taken back. */
function takeBack(): void {
  if (entry.refusal.value !== null) entry.drop()
  else void undo.undo()
}

function typeOnLine(character: string): void {
  entry.type(entry.draft.value.text + character)
  line.value?.focus()
}

useBlockKeys(() => block.value, place, { type: typeOnLine, act, undo: takeBack, bench })
</script>

<template>
  <template v-if="block">
    <main class="grid flex-1 content-start lg:grid-cols-[minmax(0,1fr)_27rem]">
      <div class="min-w-0 px-5 py-2">
        <LensBar :block="block" :lens="lens" @choose="(to) => place.go({ lens: to })" />
        <div class="overflow-x-auto">
          <BlockDeck
            class="mt-1 min-w-[38rem]"
            :block="block"
            :lens="lens"
            :chosen="number"
            :hour="hour"
            :preview="preview"
            @choose="choose"
          />
        </div>
        <div class="flex justify-between gap-4 pb-1 text-xs text-ink-soft">
          <span>◂ {{ block.card.numbering }} · 12 h: {{ block.card.twelve_o_clock }}</span>
          <span v-if="lens === 'protrusion'">dashed: least · solid: greatest</span>
        </div>
        <div class="overflow-x-auto" tabindex="0" role="region" aria-label="Every hole in numbers">
          <HoleTable :block="block" :lens="lens" :chosen="number" @choose="choose" />
        </div>
      </div>
      <aside class="border-rule px-5 py-3 lg:border-l">
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
        <template v-else-if="hole">
          <h2 class="text-lg leading-tight">
            Hole {{ hole.number }}
            <span :class="STATE_TONE[hole.state]">{{
              hole.state === 'in' ? 'is in' : hole.reason || hole.state
            }}</span>
          </h2>
          <HoleSummary :hole="hole" :lens="lens" />
          <HoleSection :block="block" :hole="hole" :hour="hour" :preview-value="previewHere?.value ?? null" />
          <HoleNeeds class="mt-2" :hole="hole" @act="act" @why="place.go({ open: 'why' })" />
        </template>
        <div v-else-if="number !== null" class="text-lg">
          There is no hole {{ number }}: this block has holes 1 to {{ block.card.holes }}.
        </div>
        <div v-else class="text-lg text-ink-soft">
          Choose a hole: click its ring, or type # and its number, such as #3.
        </div>
      </aside>
    </main>
    <EntryLine
      ref="line"
      :block="block"
      :place="place"
      :entry="entry"
      :undo="undo"
      @undo="takeBack"
      @tape="place.go({ open: open === 'tape' ? '' : 'tape' })"
    />
    <SetupDialog
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
