<script setup lang="ts">
import { computed, ref } from 'vue'

import type { WallMarkView } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { useJobUndo } from '@/shared/state/useUndo'
import NoteDialog from '@/shared/ui/NoteDialog.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import ScanForm from './ScanForm.vue'
import ScanNumbers from './ScanNumbers.vue'
import DeepestRound from './DeepestRound.vue'
import type { Spot } from './unrolled'
import { useWall } from './useWall'
import WallAside from './WallAside.vue'
import WallMarkForm from './WallMarkForm.vue'
import WallShape from './WallShape.vue'
import WallTable from './WallTable.vue'
import WallUnrolled from './WallUnrolled.vue'

/** The wall of one hole: unrolled, by level, as a body, in numbers; all of them follow one selection. */
const job = useJob()
const now = useWall(job)
const { wall, refusal, shows, shown, depth, expanded, hole } = now
const undo = useJobUndo(() => ({ hole: hole.value, part: `hole-${hole.value}` }))
const holes = computed(() => job.block.value?.holes.map((one) => one.number) ?? [])
const spot = ref<Spot | null>(null)
const noted = ref<WallMarkView | null>(null)
const isBody = ref(false)
const isMarking = ref(false)
const isScanning = ref(false)
const level = (at: number) => (depth.value = depth.value === at ? null : at)
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] gap-x-6 px-5 py-2 lg:grid-cols-[minmax(0,1fr)_372px]">
    <RefusalNote v-if="!wall" :refusal="refusal" />
    <p v-if="!wall && !refusal" class="py-6 text-ink-soft" aria-busy="true">The wall is being loaded.</p>
    <template v-if="wall">
      <div class="min-w-0">
        <header class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <RouterLink class="link" :to="{ name: 'bores', query: { hole: String(wall.hole) } }"
            >Bores</RouterLink
          >
          <h1 class="text-xl">Hole {{ wall.hole }}, {{ isBody ? 'the bore as a body' : 'wall unrolled' }}</h1>
          <p class="text-ink-soft">{{ shown?.words }}</p>
          <div class="ml-auto flex" role="radiogroup" aria-label="What is shown">
            <button
              v-for="one in shows"
              :key="one.key"
              type="button"
              role="radio"
              class="min-h-9 border px-3"
              :class="
                one.key === shown?.key ? 'border-ink bg-ink font-bold text-paper' : 'border-rule bg-sheet'
              "
              :aria-checked="one.key === shown?.key"
              @click="now.show(one.key)"
            >
              {{ one.label }}
            </button>
          </div>
        </header>
        <div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
          <span class="text-ink-soft">Hole</span>
          <button
            v-for="one in holes"
            :key="one"
            type="button"
            class="min-h-9 min-w-9 border"
            :class="one === hole ? 'border-ink bg-ink font-bold text-paper' : 'border-rule bg-sheet'"
            :aria-pressed="one === hole"
            @click="now.goTo(one)"
          >
            {{ one }}
          </button>
          <button type="button" class="quiet" :aria-pressed="isBody" @click="isBody = !isBody">
            {{ isBody ? 'Unrolled' : 'As a body' }}
          </button>
          <label v-if="!isBody" class="flex items-center gap-2"
            ><input v-model="expanded" type="checkbox" /> show the ±</label
          >
          <button type="button" class="quiet" :aria-expanded="isMarking" @click="isMarking = !isMarking">
            Mark the wall
          </button>
          <button type="button" class="quiet" :aria-expanded="isScanning" @click="isScanning = !isScanning">
            Bring in a scan
          </button>
        </div>
        <ScanForm
          v-if="isScanning"
          :key="hole"
          :job-id="job.jobId"
          :hole="hole"
          :invented="job.block.value?.job.invented ?? false"
          @done="now.load()"
        />
        <template v-if="shown">
          <WallShape v-if="isBody && shown.field" :key="shown.key" :shown="shown" :bore="wall.bore_m" />
          <div v-else class="relative overflow-x-auto">
            <WallUnrolled
              class="mt-1 sm:min-w-[38rem]"
              :wall="wall"
              :shown="shown"
              :depth="depth"
              :spot="isMarking ? spot : null"
              :marking="isMarking"
              :expanded="expanded"
              @point="spot = $event"
              @level="level"
              @mark="noted = $event"
            />
          </div>
          <WallMarkForm
            v-if="isMarking"
            class="my-2"
            :now="now"
            :job-id="job.jobId"
            :spot="spot"
            @done="spot = null"
          />
          <DeepestRound v-if="shown.kind === 'wear' && !isBody" :wall="wall" />
          <ScanNumbers
            v-if="now.scan.value"
            class="mt-2"
            :job-id="job.jobId"
            :scan="now.scan.value"
            :depth="depth"
            :cut-off="now.cutOff.value"
            :cut-offs="now.scans.value?.cut_offs ?? []"
            @level="level"
            @filter="now.cutOff.value = $event"
          />
          <WallTable v-else class="mt-2" :shown="shown" :depth="depth" @level="level" />
        </template>
        <p v-else class="py-6">
          Nothing of this bore is read yet.
          <RouterLink
            class="link"
            :to="{
              name: 'survey',
              params: { quantity: wall.quantity.replaceAll(' ', '-'), part: `hole-${wall.hole}` },
            }"
            >Read it by level and axis</RouterLink
          >, and the wear step round the clock.
        </p>
      </div>
      <WallAside
        v-if="shown"
        class="lg:border-l lg:border-rule lg:pl-5"
        :wall="wall"
        :shown="shown"
        :depth="depth"
        @level="level"
        @mark="noted = $event"
      />
      <NoteDialog
        v-if="noted"
        :key="noted.finding.finding_id"
        open
        found
        :reading-id="noted.finding.finding_id"
        :where="`${noted.letter}, ${noted.finding.word}`"
        :undo="undo"
        @close="noted = null"
        @added="now.load()"
      />
    </template>
  </main>
</template>
