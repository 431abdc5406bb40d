<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { useJob } from '@/shared/state/job'
import { tell } from '@/shared/state/readBack'
import BenchHead from '@/shared/ui/BenchHead.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { onPedal } from '@/shared/ui/typing'

import BeginDrop from './BeginDrop.vue'
import DropActs from './DropActs.vue'
import DropAfter from './DropAfter.vue'
import DropClock from './DropClock.vue'
import DropNext from './DropNext.vue'
import DropPicture from './DropPicture.vue'
import DropWarmth from './DropWarmth.vue'
import { callBetween } from './dropWords'
import { useDrop } from './useDrop'
import { useTried } from './useHeat'

/** A liner that drops hot and cold, full screen: seconds left, the step that is due, temperatures, how it felt, after. */
const job = useJob()
const route = useRoute()
const run = useDrop(job)
const { page, drop, hole, elapsed } = run
const tried = useTried(job.jobId)
const chosen = computed(() => (typeof route.query['liner'] === 'string' ? route.query['liner'] : null))
const isWall = computed(() => route.query['wall'] !== undefined)
const isOver = computed(() => drop.value?.home !== null && drop.value?.home !== undefined)

function tap(): void {
  const now = drop.value
  if (!now || run.busy.value) return
  const check = now.checks.find((one) => !one.done_by)
  if (now.state === 'to be looked at first' && check) void run.note(check.kind)
  else if (now.state === 'ready to come out of the cold') void run.note('liner out of the cold')
  else if (now.next_step) void run.note(now.next_step)
}
onPedal(tap)
// Called for the ears of whoever has no eyes for it; switched off it stays quiet.
const called = ref('')
watch(elapsed, (after, before) => {
  const call = drop.value ? callBetween(drop.value, before, after) : ''
  if (!call) return
  called.value = call
  tell(call, call !== 'closed')
})
// How old the answer is by now: what it says in seconds from now is that much less.
const since = computed(() => (page.value ? (run.clock.value - Date.parse(page.value.now)) / 1000 : 0))
</script>

<template>
  <main v-if="job.block.value" class="flex min-h-screen flex-1 flex-col">
    <BenchHead
      v-if="!isWall"
      :to="{ name: 'heat', params: { job: job.jobId, hole: String(hole) } }"
      out="Heat and cold"
      :job="job.block.value.job.name"
      :what="drop ? `${drop.liner} drops into hole ${hole}` : `hole ${hole}`"
      places="Holes"
      short
    >
      <RouterLink
        v-for="one in page?.tray ?? []"
        :key="one.hole"
        :to="{ name: 'heat-run', params: { job: job.jobId, hole: String(one.hole) } }"
        class="flex min-h-11 min-w-14 items-center justify-center rounded border px-2 max-sm:hidden"
        :class="one.hole === hole ? 'border-act bg-act-wash' : 'border-rule'"
        :aria-label="`Hole ${one.hole}`"
        ><b>hole {{ one.hole }}</b></RouterLink
      >
    </BenchHead>
    <RefusalNote v-if="!page" class="m-5" :refusal="run.missing.value" />
    <p v-else-if="!drop && page.is_filled" class="p-6 text-lg">
      A liner is in hole {{ page.hole }}, and no drop of it is on record.
      <RouterLink class="link" :to="{ name: 'fit', params: { job: job.jobId, hole: String(hole) } }"
        >Its fit</RouterLink
      >
    </p>
    <BeginDrop v-else-if="!drop" :run="run" :page="page" :tried="tried" :chosen="chosen" />
    <div v-else-if="isWall" class="grid h-[calc(100vh-5rem)] grid-rows-[1fr_auto] gap-2 p-4">
      <DropClock :drop="drop" :elapsed="elapsed" wall />
      <p class="flex items-center justify-between text-2xl">
        <span>{{ drop.liner }} into hole {{ hole }}</span>
        <span v-if="drop.calls">{{ drop.calls }} calls the clock</span>
        <RouterLink class="link" :to="{ query: {} }">Back to the run</RouterLink>
      </p>
    </div>
    <div
      v-else
      class="grid flex-1 content-start gap-x-7 gap-y-3 px-5 py-3 lg:grid-cols-[minmax(0,1fr)_22.5rem]"
    >
      <h1 class="sr-only">Drop of {{ drop.liner }} into hole {{ hole }}</h1>
      <div class="grid min-w-0 content-start gap-2 max-lg:contents">
        <DropClock :drop="drop" :elapsed="elapsed" />
        <DropPicture
          v-if="drop.window"
          class="max-sm:hidden"
          :drop="drop"
          :window="drop.window"
          :elapsed="drop.home_s_after_out ?? elapsed"
        />
        <DropNext v-if="drop.out_at" class="max-lg:order-last" :others="page.others" :since="since" />
        <p class="sr-only" role="status" aria-label="Called">{{ called }}</p>
      </div>
      <aside class="grid min-w-0 content-start gap-4 max-lg:contents">
        <DropActs :run="run" :page="page" :drop="drop" @tap="tap" />
        <DropAfter v-if="isOver" :run="run" :drop="drop" />
        <DropWarmth v-if="drop.learned" :run="run" :drop="drop" />
        <p class="flex flex-wrap gap-x-5 text-sm">
          <RouterLink class="link" :to="{ query: { wall: '' } }">Large, for the wall</RouterLink>
        </p>
      </aside>
    </div>
  </main>
</template>
