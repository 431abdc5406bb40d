<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import {
  findJobs,
  type JobFoundView,
  type ShopLearnedView,
  type OpeningView,
  readLearned,
  readLife,
} from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import BlockLife from './BlockLife.vue'
import HoursAgainst from './HoursAgainst.vue'
import { share } from './words'

/** What the shop learns from its own jobs, past ones found by words, and the life of a block over its openings. */
const { data, refusal: missing } = useLoaded<ShopLearnedView>(() => ask(readLearned()))
const words = ref('')
const found = ref<JobFoundView[] | null>(null)
const life = ref<{ serial: string; openings: OpeningView[] } | null>(null)
const { refusal, busy, send } = useForm()
const search = () =>
  send(async () => {
    found.value = await ask(findJobs({ query: { words: words.value } }))
    life.value = null
  })
const open = (serial: string) =>
  send(async () => {
    life.value = { serial, openings: await ask(readLife({ query: { serial } })) }
  })
const waits = computed(() => Object.entries(data.value?.waited_d ?? {}).sort((a, b) => b[1] - a[1]))
const longest = computed(() => Math.max(1, ...waits.value.map((one) => one[1])))
const fastest = computed(() =>
  Math.max(1e-9, ...(data.value?.rates ?? []).map((one) => one.per_stroke_m + one.spread_m)),
)
const small = (metres: number, signed = false) =>
  `${lengthText(metres, unit.value, { signed })} ${unit.value}`
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <div class="mt-2 flex flex-wrap items-baseline gap-x-4">
      <h1 class="text-xl">What the shop learned</h1>
      <a class="link ml-auto" href="/api/learned.csv">all figures as CSV</a>
    </div>
    <RefusalNote :refusal="missing ?? refusal" />
    <form class="mt-2 flex flex-wrap items-end gap-3" role="search" @submit.prevent="search">
      <TextField
        v-model="words"
        class="min-w-48 flex-1"
        label="Find past jobs by symptom, construction, fit, odd result, lead in vain"
        path="words"
      />
      <button type="submit" class="act" :disabled="busy || !words.trim()">Find</button>
    </form>
    <section v-if="found" class="mt-3" aria-label="Found" aria-live="polite">
      <p v-if="!found.length">No job answers these words: try fewer, or the beginning of one.</p>
      <article v-for="one in found" :key="one.job_id" class="border-b border-rule py-2">
        <RouterLink class="link font-bold" :to="{ name: 'home', params: { job: one.job_id } }">{{
          one.name
        }}</RouterLink>
        <button type="button" class="link ml-3 text-sm" @click="open(one.serial)">
          life of block {{ one.serial }}
        </button>
        <ul class="text-sm text-ink-soft">
          <li v-for="line in one.lines" :key="line">{{ line }}</li>
        </ul>
      </article>
    </section>
    <BlockLife v-if="life" :serial="life.serial" :openings="life.openings" />
    <div
      v-if="data"
      class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
    >
      <HoursAgainst :hours="data.hours" />
      <section aria-labelledby="waiting">
        <h2 id="waiting" class="text-lg">What was waited for</h2>
        <ul>
          <li v-for="[cause, days] in waits" :key="cause" class="flex flex-wrap items-center gap-x-3 py-0.5">
            <span class="w-28">{{ cause }}</span>
            <svg width="220" height="14" aria-hidden="true" class="shrink-0">
              <rect y="1" :width="(220 * days) / longest" height="12" class="fill-unsure" />
            </svg>
            <b class="num">{{ days.toFixed(1) }} d</b>
          </li>
        </ul>
        <h2 class="mt-5 text-lg">First oversize</h2>
        <p>
          <template v-if="data.first_step.looked"
            ><b class="text-2xl">{{ data.first_step.cleaned }} of {{ data.first_step.looked }}</b> bores
            cleaned up at the first step ({{
              share(data.first_step.cleaned, data.first_step.looked)
            }}).</template
          ><template v-else>No bore was looked at after its first step yet.</template>
        </p>
        <h2 class="mt-5 text-lg">Returns</h2>
        <p>
          The shop reckons with {{ Number(data.returns_percent) }} of a hundred jobs coming back.
          <RouterLink class="link" :to="{ name: 'reckon' }">What that costs in a price</RouterLink>
        </p>
      </section>
      <section aria-labelledby="stones">
        <h2 id="stones" class="text-lg">Stones: taken by a double stroke, on the diameter</h2>
        <p v-if="!data.rates.length" class="text-ink-soft">No round was read before and after yet.</p>
        <ul>
          <li
            v-for="one in data.rates"
            :key="`${one.job}${one.grit}${one.method}`"
            class="flex flex-wrap items-center gap-x-3 py-0.5"
          >
            <span class="w-28 shrink-0 truncate">grit {{ one.grit }}, {{ one.method }}</span>
            <svg width="180" height="16" aria-hidden="true" class="shrink-0">
              <line
                :x1="(170 * Math.max(one.per_stroke_m - one.spread_m, 0)) / fastest"
                :x2="(170 * (one.per_stroke_m + one.spread_m)) / fastest"
                y1="8"
                y2="8"
                class="stroke-ink"
                stroke-width="2"
              />
              <circle :cx="(170 * one.per_stroke_m) / fastest" cy="8" r="5" class="fill-part" />
            </svg>
            <b class="num">{{ (one.per_stroke_m * 1e6).toFixed(2) }} µm</b>
            <span class="text-sm text-ink-soft">{{ one.rounds }} rounds, {{ one.job }}</span>
          </li>
        </ul>
      </section>
      <section aria-labelledby="fits">
        <h2 id="fits" class="text-lg">Presses, aimed at and reached</h2>
        <p v-if="!data.fits.length" class="text-ink-soft">
          No dry liner stands in a bore that was read with it yet.
        </p>
        <ul>
          <li
            v-for="one in data.fits"
            :key="`${one.job}${one.hole}`"
            class="flex gap-3 border-b border-rule py-1"
          >
            <span class="flex-1">{{ one.job }}, hole {{ one.hole }}</span>
            <span class="num">aim {{ small(one.aim_m) }}</span>
            <b class="num">{{ small(one.reached_m - one.aim_m, true) }}</b>
          </li>
        </ul>
      </section>
    </div>
  </main>
</template>
