<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { type HotHoldView, readHotFit } from '@/api/generated'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import HolePicker from '@/shared/ui/HolePicker.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import HotNomogram from './HotNomogram.vue'
import HotRows from './HotRows.vue'

/** What holds a liner when it is hot: the press at every moment of running, then clamp, drag, heights and gaps. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const hole = computed(() => Number(route.params['hole']))
const tried = ref<{ block_c: number; liner_c: number } | null>(null)
const chosen = ref(0)
const {
  data: view,
  refusal,
  load,
} = useLoaded<HotHoldView>(
  () =>
    ask(
      readHotFit({
        path: { job_id: job.jobId, hole: hole.value },
        query: {
          ...(tried.value ?? {}),
          ...(typeof route.query['liner'] === 'string' ? { liner: route.query['liner'] } : {}),
        },
      }),
    ),
  hole,
)
watch(tried, () => void load())
onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
const holes = computed(() => job.block.value?.holes.map((one) => one.number) ?? [])
const cold = computed(() => view.value?.moments[0] ?? null)
const celsius = (one: { value_m: number; expanded_m: number }) =>
  `${Math.round(one.value_m)} ±${Math.ceil(one.expanded_m)} °C`
const HOLDERS: Record<string, string> = {
  'the head clamps it': 'only the head holds it',
  'retaining compound': 'only compound holds it',
  nothing: 'nothing holds it',
  'not known': 'what holds it is not known',
}
function attempt(which: 'block_c' | 'liner_c', event: Event): void {
  const now = tried.value ?? { block_c: 95, liner_c: 130 }
  tried.value = { ...now, [which]: Number((event.target as HTMLInputElement).value) }
  chosen.value = (view.value?.moments.length ?? 1) - 1
}
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start px-5 py-2">
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">The fit is being loaded.</p>
    <template v-if="view">
      <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <RouterLink class="link" :to="{ name: 'fit', params: { hole: String(view.hole) } }">Fit</RouterLink>
        <h1 class="text-xl">
          Hole {{ view.hole }}<template v-if="view.liner"> and liner {{ view.liner }}</template
          >: what holds it hot
        </h1>
        <HolePicker
          :holes="holes"
          :chosen="hole"
          @choose="router.replace({ params: { ...route.params, hole: String($event) } })"
        />
        <p v-if="cold" class="text-ink-soft">
          {{ view.liner_material }} in {{ view.block_material }} · press
          <span class="num"
            >{{ lengthText(cold.press.value_m, unit, { signed: true }) }} ±{{
              uncertaintyText(cold.press.expanded_m, unit)
            }}</span
          >
          {{ unit }} on Ø at 20 °C
        </p>
      </header>
      <section
        v-if="view.missing"
        class="mt-4 max-w-2xl border-l-4 border-unsure py-2 pl-4"
        aria-label="Not known"
      >
        <p class="text-lg font-bold"><PhraseText :phrase="view.missing" /></p>
        <RouterLink class="link" :to="{ name: 'job-card' }">The card</RouterLink>
      </section>
      <template v-else>
        <p class="mt-1 text-[1.35rem] leading-snug">
          <template v-if="view.gone_alike_c"
            >The press is gone at <b>{{ celsius(view.gone_alike_c) }}</b> with block and liner alike<template
              v-if="view.gone_hotter_c && view.hotter_k > 0"
              >, at <b>{{ celsius(view.gone_hotter_c) }}</b> with the liner {{ Math.round(view.hotter_k) }} K
              hotter</template
            >; then {{ HOLDERS[view.holder] }}.</template
          >
          <template v-else>Heat does not loosen this fit: the block grows no more than the liner.</template>
        </p>
        <div class="mt-2 grid items-start gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,9fr)_minmax(0,11fr)]">
          <div class="min-w-0">
            <HotNomogram :view="view" :chosen="chosen" @choose="chosen = $event" />
            <div class="grid grid-cols-2 gap-x-6">
              <label class="grid text-sm"
                >try block at <b class="num">{{ tried?.block_c ?? 95 }} °C</b>
                <input
                  type="range"
                  class="accent-act"
                  min="-20"
                  max="160"
                  step="1"
                  :value="tried?.block_c ?? 95"
                  @input="attempt('block_c', $event)"
                />
              </label>
              <label class="grid text-sm"
                >try liner at <b class="num">{{ tried?.liner_c ?? 130 }} °C</b>
                <input
                  type="range"
                  class="accent-act"
                  min="-20"
                  max="220"
                  step="1"
                  :value="tried?.liner_c ?? 130"
                  @input="attempt('liner_c', $event)"
                />
              </label>
            </div>
          </div>
          <div class="min-w-0">
            <HotRows :view="view" :chosen="chosen" @choose="chosen = $event" />
            <section class="mt-3 rounded bg-plate p-4 text-plate-text" aria-label="What this says">
              <p class="text-sm text-plate-soft">What hole {{ view.hole }} says</p>
              <p
                v-for="(one, at) in view.says"
                :key="at"
                class="mt-1 leading-snug"
                :class="at === 0 && 'text-lg font-bold'"
              >
                <PhraseText :phrase="one" />
              </p>
              <p v-if="!view.says.length" class="text-lg font-bold">
                Nothing lets go: the press is kept at every moment.
              </p>
              <p class="mt-2 text-sm text-plate-soft">
                Held hot by: {{ view.holder }}<template v-if="view.source">, {{ view.source }}</template
                >. The tool plans; limits come from the maker’s book.
              </p>
            </section>
          </div>
        </div>
      </template>
    </template>
  </main>
</template>
