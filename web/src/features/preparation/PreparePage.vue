<script setup lang="ts">
import { computed, ref } from 'vue'

import type { FindingView } from '@/api/generated'
import { sizeText } from '@/shared/format/lengths'
import { STATE_TONE } from '@/shared/format/tones'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import { useJobUndo } from '@/shared/state/useUndo'
import NoteDialog from '@/shared/ui/NoteDialog.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import DeckPicture from './DeckPicture.vue'
import LookList from './LookList.vue'
import MarkForm from './MarkForm.vue'
import MarkList from './MarkList.vue'
import type { Spot } from './picture'
import PlugTable from './PlugTable.vue'
import PrepSteps from './PrepSteps.vue'
import { usePreparation } from './usePreparation'

/** The block made ready to be cut: its deck and what is wrong with it, cleaning, plugs, looks. */
const job = useJob()
const now = usePreparation(job)
const { ready, missing, load } = now
const spot = ref<Spot | null>(null)
const hole = ref<number | null>(null)
const noted = ref<FindingView | null>(null)
const undo = useJobUndo(() => ({ hole: noted.value?.hole ?? null, part: '' }))
const holes = computed(() => job.block.value?.holes.map((one) => one.number) ?? [])
</script>

<template>
  <main class="flex-1 px-5 py-3">
    <RefusalNote v-if="!ready" :refusal="missing" />
    <p v-if="!ready && !missing" class="py-6 text-ink-soft" aria-busy="true">The deck is being loaded.</p>
    <template v-if="ready && job.block.value">
      <div class="flex flex-wrap items-baseline gap-x-5">
        <h1 class="text-xl">Prepare the block</h1>
        <p v-for="one in ready.flatness" :key="one.part" class="text-ink-soft">
          <RouterLink
            class="link"
            :to="{ name: 'survey', params: { job: job.jobId, quantity: 'deck-flatness', part: one.part } }"
            >{{ one.title }}</RouterLink
          >
          flatness:
          <b v-if="one.asked" :class="STATE_TONE[one.state]">{{ one.state }}</b>
          <template v-else>no limit on the card</template>
        </p>
        <p class="ml-auto text-sm text-ink-soft">
          <template v-if="ready.land_m !== null"
            >copper: the sealing land, {{ sizeText(ready.land_m, unit) }} wide ·
          </template>
          point to a mark
        </p>
      </div>
      <div class="mt-2 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div class="grid min-w-0 content-start gap-3">
          <DeckPicture
            :block="job.block.value"
            :land="ready.land_m"
            :edge-radius="ready.edge_radius_m"
            :marks="ready.marks"
            :wear="ready.wear"
            :chosen="spot"
            :hole="hole"
            @point="spot = $event"
            @mark="noted = $event"
          />
          <MarkForm :now="now" :ready="ready" :holes="holes" :spot="spot" @hole="hole = $event" />
          <MarkList :ready="ready" @notes="noted = $event" />
        </div>
        <div class="grid content-start gap-5">
          <PrepSteps :now="now" :ready="ready" />
          <PlugTable :now="now" :ready="ready" />
          <LookList :now="now" :ready="ready" :holes="holes" />
          <p v-for="line in ready.cautions" :key="line" class="caution">{{ line }}</p>
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
