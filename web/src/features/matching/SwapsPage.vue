<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'

import { ask } from '@/api/ask'
import { readSwaps, type SwapsView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import EffectBars from './EffectBars.vue'
import SwapGrid from './SwapGrid.vue'
import { putWords, swapHeadline } from './swaps'

/** Every fitting ever read: what belongs to the hole, what to the liner, and the exchange that would tell most. */
const job = useJob()
const get = () => ask(readSwaps({ path: { job_id: job.jobId } }))
const { data: view, refusal, load } = useLoaded<SwapsView>(get)
onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
const small = (metres: number) => `${lengthText(metres, unit.value)} ${unit.value}`
const compared = computed(() => {
  const all = view.value?.liners ?? []
  return all.filter((one) => all.filter((other) => other.group === one.group).length > 1)
})
const odd = computed(() => view.value?.fittings.filter((one) => !one.fits) ?? [])
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-3 px-5 py-3">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <RouterLink class="link" :to="{ name: 'matching', params: { job: job.jobId } }"
        >Who goes where</RouterLink
      >
      <h1 class="text-xl">Swap table</h1>
      <p v-if="view?.fittings.length" class="text-ink-soft">
        {{ view.fittings.length }} fittings read, shims taken off · {{ unit }}
      </p>
    </header>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-else-if="view.why_not" class="max-w-3xl border-l-4 border-unsure py-1 pl-4 text-lg font-bold">
      {{ view.why_not }}
    </p>
    <template v-else>
      <p class="text-2xl font-bold">{{ swapHeadline(view) }}</p>
      <div
        class="grid grid-cols-[minmax(0,1fr)] items-start gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]"
      >
        <SwapGrid :view="view" />
        <aside class="grid min-w-0 content-start gap-4">
          <section class="rounded bg-plate px-4 py-3 text-plate-text" aria-label="What to exchange next">
            <p class="text-sm text-plate-soft">The exchange that would tell most</p>
            <template v-if="view.proposed">
              <p class="text-lg font-bold">{{ putWords(view.proposed) }}</p>
              <p class="mt-1 text-sm text-plate-soft">
                Read both after it. A difference between liners is then known to
                <b class="num text-plate-text">±{{ small(view.proposed.after_m) }}</b> on average, now to ±{{
                  small(view.proposed.before_m)
                }}; before anything is read liners are taken to differ by 100 µm (3.9 thou).
              </p>
              <RouterLink
                class="mt-2 inline-flex min-h-11 items-center text-plate-act underline"
                :to="{
                  name: 'cut',
                  params: { job: job.jobId, hole: parseInt(view.proposed.puts[0]?.hole ?? '1') },
                  query: { liner: view.proposed.puts[0]?.liner },
                }"
                >Fit it</RouterLink
              >
            </template>
            <p v-else class="text-lg font-bold">Nothing is left to exchange.</p>
          </section>
          <EffectBars v-if="compared.length" title="What the liner adds" :effects="compared" />
          <EffectBars title="What the hole gives" :effects="view.holes" />
          <p v-for="one in odd" :key="one.hole + one.liner" class="text-sm text-unsure">
            {{ one.liner }} in {{ one.hole }} stands {{ small(one.left_over.value_m) }} off what hole and
            liner say together: look at that fitting, not at the parts.
          </p>
          <p v-for="one in view.left_out" :key="one" class="text-sm text-unsure">Left out: {{ one }}.</p>
          <p class="caution">
            One exchange at a time, with the same clamp and the same land: what changes with the hole belongs
            to the hole, what goes with the liner belongs to the liner.
          </p>
        </aside>
      </div>
    </template>
  </main>
</template>
