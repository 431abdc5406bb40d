<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'

import { ask } from '@/api/ask'
import { type MainsView, readMains } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useLoaded } from '@/shared/state/useLoaded'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import MainRing from './MainRing.vue'
import MainsLine from './MainsLine.vue'

/** The main bores in three directions, before and after the work, in one line; and whether they are align-honed. */
const job = useJob()
const path = { job_id: job.jobId }
const { data: view, refusal, load } = useLoaded<MainsView>(() => ask(readMains({ path })))
onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
const limits = computed(() => view.value?.mains.find((one) => one.least_m !== null) ?? null)
const size = (metres: number | null) => (metres === null ? '–' : lengthText(metres, SIZE_WITH[unit.value]))
const between = computed(() => [...new Set((view.value?.mains ?? []).flatMap((one) => one.between))])
const TITLE: Record<string, string> = {
  'leave them': 'Leave them as they are',
  'align-hone': 'Align-hone them',
  'cut the caps, then align-hone': 'Cut the caps, then align-hone',
  'cannot tell yet': 'Cannot be told yet',
}
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-4 px-5 py-3">
    <header class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
      <h1 class="text-xl">Main bores</h1>
      <p v-if="limits" class="text-ink-soft">
        least <b class="num text-ink">{{ size(limits.least_m) }}</b>, greatest
        <b class="num text-ink">{{ size(limits.greatest_m) }}</b> {{ SIZE_WITH[unit] }}
      </p>
      <p v-else-if="view?.mains.length" class="text-unsure">
        The card has no limits of the mains:
        <RouterLink class="link" :to="{ name: 'job-card' }">write least and greatest on it</RouterLink>.
      </p>
      <p v-if="between.length" class="text-ink-soft">hollow: before {{ between.join(', ') }}</p>
    </header>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="!view && !refusal" class="text-ink-soft" aria-busy="true">The mains are being loaded.</p>
    <p v-if="view && view.mains.length === 0" class="max-w-2xl">
      The card of this engine has no main bores.
      <RouterLink class="link" :to="{ name: 'job-card' }">Say how many on it</RouterLink>, with their limits.
    </p>
    <div v-if="view?.mains.length" class="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_19rem]">
      <div class="grid content-start gap-4">
        <div class="grid grid-cols-[repeat(auto-fit,minmax(15rem,1fr))] gap-x-8 gap-y-4">
          <MainRing v-for="main in view.mains" :key="main.part" :main="main" />
        </div>
        <MainsLine :line="view.line" />
      </div>
      <aside class="grid content-start gap-3">
        <section class="rounded bg-plate p-4 text-plate-text" aria-label="What the mains need">
          <p class="text-sm text-plate-soft">What the mains need</p>
          <p class="text-2xl leading-tight font-bold">{{ TITLE[view.decision.what] }}</p>
          <ul class="mt-2 grid gap-1" aria-label="Why">
            <li v-for="(said, at) in view.decision.reasons" :key="at"><PhraseText :phrase="said" /></li>
            <li v-for="(said, at) in view.decision.open_points" :key="`open ${at}`" class="text-plate-soft">
              <PhraseText :phrase="said" />
            </li>
          </ul>
          <p v-if="view.decision.what === 'leave them'" class="text-plate-soft">
            Every one is in, and they stand in one line.
          </p>
          <p v-if="view.decision.brings" class="mt-2 text-plate-soft">
            <PhraseText :phrase="view.decision.brings" />
          </p>
          <RouterLink
            class="mt-2 inline-flex min-h-11 items-center text-plate-act underline"
            :to="{ name: 'route' }"
            >Mark it on the route</RouterLink
          >
        </section>
        <p class="text-sm text-ink-soft">
          A small main eats the oil clearance and is honed out. A big one has lost the crush of its shells,
          and no hone brings metal back: half a thou of the one is not half a thou of the other.
        </p>
        <p class="caution">{{ view.caution.join(' ') }}</p>
      </aside>
    </div>
  </main>
</template>
