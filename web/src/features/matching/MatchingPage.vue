<script setup lang="ts">
import { computed } from 'vue'

import { lengthText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import GoalsOrder from './GoalsOrder.vue'
import HolesThen from './HolesThen.vue'
import MatchingPicture from './MatchingPicture.vue'
import MatchingTable from './MatchingTable.vue'
import TrayList from './TrayList.vue'
import { useMatching } from './useMatching'
import { headline, moveWords, needWords } from './words'

/** Who goes where: the liners of the job in its holes as read, the best arrangement of them, what limits it, its moves. */
const job = useJob()
const { view, refusal, locked, goals, cuts, lock, choose, form, proven } = useMatching(job)
const WAYS = [
  { cuts: false, label: 'exchange only' },
  { cuts: true, label: 'cut what must be' },
] as const
const outside = computed(() => view.value?.holes.some((one) => one.state === 'out') ?? false)
const low = computed(() => view.value?.holes.find((one) => one.state !== 'in') ?? null)
const idle = computed(
  () =>
    view.value !== null && !view.value.moves.length && view.value.holes.every((one) => one.shim_m === null),
)
const hasNumbers = computed(() => (view.value?.holes ?? []).some((one) => one.now))
const range = computed(() => {
  const first = view.value?.holes[0]
  const plain = view.value?.holes.find((one) => one.shim_m === null) ?? first
  if (!plain) return ''
  const on = view.value?.holes.find((one) => one.shim_m !== null)
  const words = (one: typeof plain) =>
    `${lengthText(one.least_m, unit.value)} to ${lengthText(one.greatest_m, unit.value)}`
  return on && words(on) !== words(plain) ? `${words(plain)}, on a shim ${words(on)}` : words(plain)
})
const percent = (share: number) => `${Math.round(share * 100)} %`
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-2 px-5 py-3">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <RouterLink class="link" :to="{ name: 'liners' }">Liners</RouterLink>
      <h1 class="text-xl">Who goes where</h1>
      <RouterLink class="link" :to="{ name: 'swaps', params: { job: job.jobId } }">Swap table</RouterLink>
      <p v-if="view?.holes.length" class="text-ink-soft">
        {{ view.holes[0]?.ways.length }} liners, {{ view.holes.length }} holes ·
        {{ view.of === 'press' ? 'press' : 'heights' }} as read · limits {{ range }} {{ unit }}
      </p>
      <div v-if="view && !view.why_no_cut" class="ml-auto flex" role="group" aria-label="What may be done">
        <button
          v-for="one in WAYS"
          :key="one.label"
          type="button"
          class="min-h-11 border px-4"
          :class="one.cuts === cuts ? 'border-ink bg-ink font-bold text-paper' : 'border-rule bg-sheet'"
          :aria-pressed="one.cuts === cuts"
          @click="cuts = one.cuts"
        >
          {{ one.label }}
        </button>
      </div>
    </header>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <section
      v-else-if="view.why_not"
      class="max-w-3xl border-l-4 border-unsure py-1 pl-4"
      aria-label="No matching yet"
    >
      <p class="text-lg font-bold">{{ view.why_not }}</p>
      <p class="mt-1 flex gap-5">
        <RouterLink class="link" :to="{ name: 'liners' }">Flanges of the liners</RouterLink>
        <RouterLink class="link" :to="{ name: 'job-card' }">The card</RouterLink>
      </p>
      <TrayList v-if="view.chosen" class="mt-3" :chosen="view.chosen" />
    </section>
    <template v-else>
      <p class="text-2xl">
        <b :class="outside ? 'text-out' : ''">{{ headline(view) }}</b>
        <b class="ml-3 text-lg" :class="proven ? 'text-in' : 'text-unsure'">{{
          proven ? 'proven' : 'the best found in the time given'
        }}</b>
        <span class="ml-2 text-base text-ink-soft"
          >{{ view.orders.toLocaleString('en') }} orders of the liners{{
            view.by_exchange ? `, the best by exchange leaves ${view.by_exchange} outside` : ''
          }}</span
        >
      </p>
      <div
        class="grid grid-cols-[minmax(0,1fr)] items-start gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,28rem)]"
      >
        <figure class="grid min-w-0 gap-1" aria-label="Now and then">
          <MatchingPicture :view="view" />
          <HolesThen :holes="view.holes" :locked="locked" :is-press="view.of === 'press'" @lock="lock" />
          <figcaption class="text-sm text-ink-soft">
            {{ hasNumbers ? 'Dashed: as it is now. ' : '' }}Solid: as it would stand, with its ±. A hole that
            is cut is known by the stop alone until its ledge is read.
          </figcaption>
          <GoalsOrder class="mt-2" :goals="view.goals" @order="(next) => (goals = next)" />
        </figure>
        <aside class="grid min-w-0 content-start gap-3">
          <MatchingTable :view="view" />
          <TrayList v-if="view.chosen && !view.chosen.is_done" :chosen="view.chosen" />
          <section
            v-else
            class="rounded bg-plate px-4 py-3 text-plate-text"
            aria-label="What this block needs"
          >
            <p class="text-sm text-plate-soft">What this block needs</p>
            <p class="text-lg leading-snug font-bold">{{ needWords(view) }}</p>
            <ol v-if="view.moves.length" class="mt-1 text-sm text-plate-soft">
              <li v-for="one in view.moves" :key="one.liner + String(one.to_hole)">{{ moveWords(one) }}</li>
            </ol>
            <p class="mt-1 text-sm text-plate-soft">
              All in and every rule between them kept:
              <b class="text-plate-text">{{ percent(view.chance) }}</b>
            </p>
            <button v-if="!idle" type="button" class="act mt-2" :disabled="form.busy.value" @click="choose">
              Take this order
            </button>
            <RefusalChoices :refusal="form.refusal.value" @answer="choose" />
          </section>
          <section v-if="view.proof.length" aria-label="What limits it">
            <p class="text-lg leading-snug font-bold">{{ view.proof.join(' ') }}</p>
            <p v-if="low" class="mt-1">
              <RouterLink class="link" :to="{ name: 'options', params: { job: job.jobId, hole: low.hole } }"
                >What else could be done about hole {{ low.hole }}</RouterLink
              >
            </p>
            <p v-if="view.helps.length" class="mt-1 text-sm">
              What would do: {{ view.helps.join('; or ') }}.
            </p>
          </section>
          <p v-if="view.locks" class="text-sm text-ink-soft">{{ view.locks }}</p>
          <p v-if="view.why_no_cut" class="text-sm text-ink-soft">{{ view.why_no_cut }}</p>
          <p v-for="one in view.missing" :key="one" class="text-sm text-unsure">
            Left out: {{ one }}.
            <RouterLink
              v-if="one.includes('disagree')"
              class="link"
              :to="{ name: 'adds-up', params: { job: job.jobId } }"
              >What may be behind it</RouterLink
            >
          </p>
          <p class="caution">
            An exchange for less than the ± of both is an exchange for nothing: it spends a clean seat and
            proves no height. Read again after every one.
          </p>
        </aside>
      </div>
    </template>
  </main>
</template>
