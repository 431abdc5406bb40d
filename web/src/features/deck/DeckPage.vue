<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'

import { ask } from '@/api/ask'
import { type Aim, type DeckPlanView, readDeckPlan } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import DeckOptions from './DeckOptions.vue'
import DeckTry from './DeckTry.vue'
import FaceFromAbove from './FaceFromAbove.vue'

/** The plan of a deck: what a surfacer takes for each aim, and everything that moves with it, before anything is cut. */
const job = useJob()
const path = { job_id: job.jobId }
const asked = ref({ skim: '', land: '', volume: '' })
const get = (what: typeof asked.value) =>
  ask(readDeckPlan({ path, query: { ...what, bare_unit: unit.value } }))
const { data: view, refusal, load } = useLoaded<DeckPlanView>(() => get(asked.value))
onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
const picked = ref<Aim | null>(null)
const chosen = computed<Aim>(() => {
  const options = view.value?.options ?? []
  const can = (aim: Aim | null) => options.some((one) => one.aim === aim && !one.why_not)
  const wanted = picked.value !== null && can(picked.value) ? picked.value : (view.value?.least ?? null)
  return wanted ?? options.find((one) => one.aim !== 'leave it' && !one.why_not)?.aim ?? 'leave it'
})
const option = computed(() => view.value?.options.find((one) => one.aim === chosen.value) ?? null)
/** A trial that is refused leaves what stands; one that is taken is shown. */
async function tryIt(what: typeof asked.value): Promise<void> {
  view.value = await get(what)
  asked.value = what
  if (what.skim) picked.value = 'take what is typed'
}
const small = (metres: number | null) => (metres === null ? '–' : lengthText(metres, unit.value))
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const HEAD: Record<string, string> = {
  in: 'It comes out in',
  out: 'Something goes out',
  'cannot tell': 'Too near to tell',
  'not measured': 'Not all of it is read',
  'read again': 'Something is to be read again',
}
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-4 px-5 py-3">
    <header class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
      <h1 class="text-xl">Deck plan</h1>
      <p v-for="face in view?.faces ?? []" :key="face.part" class="text-ink-soft">
        {{ view && view.faces.length > 1 ? face.title : '' }}
        <template v-if="face.whole_m !== null"
          >cleans up with <b class="num text-ink">{{ small(face.whole_m) }}</b>, its sealing land with
          <b class="num text-ink">{{ small(face.land_cut_m) }}</b> ±{{
            uncertaintyText(face.within_m ?? 0, unit)
          }}
          {{ unit }}</template
        ><template v-if="face.height"
          >{{ face.whole_m === null ? '' : ', ' }}<b class="num text-ink">{{ size(face.height.value_m) }}</b>
          {{ SIZE_WITH[unit] }} high</template
        ><RouterLink
          v-else
          class="link ml-2"
          :to="{ name: 'survey', params: { quantity: 'deck-height', part: face.part } }"
          >read its height</RouterLink
        >
      </p>
    </header>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="!view && !refusal" class="text-ink-soft" aria-busy="true">The deck is being loaded.</p>
    <div v-if="view && option" class="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_18rem]">
      <div class="grid content-start gap-3">
        <FaceFromAbove v-for="face in view.faces" :key="face.part" :face="face" :option="option" />
        <DeckOptions :options="view.options" :chosen="chosen" :least="view.least" @choose="picked = $event" />
      </div>
      <aside class="grid content-start gap-4">
        <section v-if="view.kept.length" class="border-l-4 border-out pl-3" aria-label="Not to be cut">
          <p v-for="kept in view.kept" :key="kept"><b>Not to be cut</b>: {{ kept }}</p>
          <p v-if="view.is_kept" class="text-sm">
            No cut is recommended while that stands; the route asks for a name and a reason.
          </p>
        </section>
        <section class="rounded bg-plate p-4 text-plate-text" aria-label="What it does">
          <p class="text-sm text-plate-soft first-letter:uppercase">{{ chosen }}</p>
          <p class="text-2xl leading-tight font-bold">{{ HEAD[option.state] }}</p>
          <ul v-if="option.says.length" class="mt-2 grid gap-1">
            <li v-for="(said, at) in option.says.slice(0, 5)" :key="at"><PhraseText :phrase="said" /></li>
            <li v-if="option.says.length > 5" class="text-plate-soft">
              and {{ option.says.length - 5 }} more
            </li>
          </ul>
          <p v-if="option.compression_before !== null && option.deepest_m > 0" class="mt-2 text-plate-soft">
            Compression <b class="num">{{ option.compression_before.toFixed(2) }}</b> to
            <b class="num">{{ option.compression_after?.toFixed(2) }}</b>
          </p>
          <RouterLink
            v-if="!view.is_kept"
            class="mt-2 inline-flex min-h-11 items-center text-plate-act underline"
            :to="{ name: 'route' }"
            >Mark it on the route once it is cut</RouterLink
          >
        </section>
        <DeckTry :view="view" :load="tryIt" />
        <p v-if="view.faces.some((face) => face.may_tilt && face.relief)" class="text-sm text-unsure">
          Read with the block on its feet: the cut may be set to suit the face. What that tilts against the
          crank is told by the levels from the mains.
        </p>
        <p class="caution">A skim cannot be undone. {{ view.caution.join(' ') }}</p>
      </aside>
    </div>
  </main>
</template>
