<script setup lang="ts">
import { computed, ref } from 'vue'

import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import HolePicker from '@/shared/ui/HolePicker.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'

import AfterFit from './AfterFit.vue'
import BoreToCome from './BoreToCome.vue'
import { forceText, shareText } from './fit'
import FitDepth from './FitDepth.vue'
import FitLinks from './FitLinks.vue'
import FitNotes from './FitNotes.vue'
import HandStart from './HandStart.vue'
import SchoolRows from './SchoolRows.vue'
import TryOut from './TryOut.vue'
import { useFit } from './useFit'

/** One liner held against one hole before anything is forced: walls, press, what comes off, close-in, force. */
const job = useJob()
const now = useFit(job)
const { fit, refusal, hole, asIs, wanted } = now
const holes = computed(() => job.block.value?.holes.map((one) => one.number) ?? [])
const going = computed(() => asIs.value?.going_in ?? null)
const isWhy = ref(false)
const isTrying = ref(false)
const deep = (depth: number) =>
  `${lengthText(depth, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 2 : 0 })} ${SIZE_WITH[unit.value]}`
const SCHOOLS = ['light', 'firm'] as const
const offered = computed(() =>
  SCHOOLS.map((name) => ({ name, aim: fit.value?.schools.find((one) => one.name === name)?.aim_m ?? null })),
)
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start px-5 py-2">
    <RefusalNote v-if="!fit" :refusal="refusal" />
    <p v-if="!fit && !refusal" class="py-6 text-ink-soft" aria-busy="true">The fit is being loaded.</p>
    <template v-if="fit">
      <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <RouterLink class="link" :to="{ name: 'block', params: { lens: 'fit', hole: String(fit.hole) } }"
          >Block</RouterLink
        >
        <RouterLink class="link" :to="{ name: 'honing', params: { hole: String(fit.hole), aim: 'sleeve' } }"
          >Hone to it</RouterLink
        >
        <h1 class="text-xl">
          Hole {{ fit.hole }}<template v-if="fit.liner"> and liner {{ fit.liner }}</template
          >: {{ fit.is_home ? 'as it was pressed' : 'the fit to come' }}
        </h1>
        <HolePicker :holes="holes" :chosen="hole" @choose="now.go({ hole: $event })" />
        <label v-if="fit.liners.length > 1" class="flex items-center gap-2 text-sm text-ink-soft">
          liner
          <select
            class="field w-auto!"
            :value="fit.liner"
            @change="now.go({ liner: ($event.target as HTMLSelectElement).value })"
          >
            <option v-for="one in fit.liners" :key="one" :value="one">{{ one }}</option>
          </select>
        </label>
        <div v-if="fit.wanted" class="ml-auto flex items-center gap-2">
          <span class="text-sm text-ink-soft">press wanted</span>
          <div class="flex" role="radiogroup" aria-label="Press wanted">
            <button
              v-for="one in offered"
              :key="one.name"
              type="button"
              role="radio"
              class="min-h-9 border px-3"
              :disabled="one.aim === null"
              :class="
                one.name === fit.wanted.school
                  ? 'border-ink bg-ink font-bold text-paper'
                  : 'border-rule bg-sheet disabled:text-ink-soft'
              "
              :aria-checked="one.name === fit.wanted.school"
              @click="now.go({ school: one.name })"
            >
              {{ one.name }}
              <span v-if="one.aim !== null" class="num">{{ lengthText(one.aim, unit) }} {{ unit }}</span>
            </button>
          </div>
        </div>
      </header>
      <section
        v-if="fit.refused"
        class="mt-4 max-w-2xl border-l-4 border-unsure py-2 pl-4"
        aria-label="Not measured"
      >
        <p class="text-lg font-bold"><PhraseText :phrase="fit.refused" /></p>
        <RouterLink
          v-if="fit.refused_quantity"
          class="act mt-3 inline-flex items-center"
          :to="{
            name: 'survey',
            params: { quantity: fit.refused_quantity.replaceAll(' ', '-'), part: fit.refused_part },
          }"
          >Read the {{ fit.refused_quantity }}</RouterLink
        >
        <RouterLink v-else class="act mt-3 inline-flex items-center" :to="{ name: 'liners' }"
          >Add a liner</RouterLink
        >
      </section>
      <template v-else>
        <div class="grid items-end gap-x-8 lg:grid-cols-[minmax(0,1fr)_34rem]">
          <div class="min-w-0">
            <p v-if="going && fit.length_m" class="text-[1.65rem] leading-tight">
              Starts by hand to
              <b class="ml-1"
                >{{ shareText(going.by_hand_m.middle / fit.length_m) }} of its length,
                {{ deep(going.by_hand_m.middle) }}</b
              >
            </p>
            <p class="mt-1 text-ink-soft">
              <template v-if="going"
                >The puller then needs up to {{ forceText(going.greatest_n.middle) }} kN ({{
                  forceText(going.greatest_n.low)
                }}
                to {{ forceText(going.greatest_n.high) }}).</template
              >
              <PhraseText v-else-if="fit.no_walls" :phrase="fit.no_walls" />
              <template v-else
                >Write the liner’s length on the card: then hand start and force are told.</template
              >
              {{ Math.round(fit.grips * 100) }} % of the places read grip.
              <BoreToCome v-if="fit.expected_bore" :bore="fit.expected_bore" />
            </p>
          </div>
          <HandStart v-if="going && fit.length_m" :fit="fit" :going="going" :length="fit.length_m" />
        </div>
        <div class="mt-1 overflow-x-auto" tabindex="0" role="region" aria-label="The fit down its depth">
          <FitDepth :fit="fit" :as-is="asIs" :wanted="wanted" />
        </div>
        <div class="mt-1 grid items-start gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,1fr)_26rem]">
          <SchoolRows v-if="fit.schools.length" :fit="fit" />
          <p v-else-if="fit.no_walls" class="caution self-start"><PhraseText :phrase="fit.no_walls" /></p>
          <section class="rounded bg-plate p-4 text-plate-text" aria-label="What this hole needs">
            <p class="text-sm text-plate-soft">What hole {{ fit.hole }} needs</p>
            <p class="text-lg leading-snug font-bold"><PhraseText :phrase="fit.need" /></p>
            <p v-if="fit.better" class="mt-1 text-sm text-plate-soft">
              {{ fit.better.mark }} would suit this hole better: {{ fit.better.outside }} places outside,
              {{ lengthText(fit.better.takes_off_m, unit) }} {{ unit }} from the aim at the most.
            </p>
            <div class="mt-2 flex items-center gap-4">
              <RouterLink
                v-if="!fit.is_home && fit.liner"
                class="act inline-flex items-center"
                :to="{ name: 'pull', params: { hole: String(fit.hole) }, query: { liner: fit.liner } }"
                >Pull it in</RouterLink
              >
              <button
                type="button"
                class="text-plate-act underline underline-offset-4"
                :aria-expanded="isTrying"
                @click="isTrying = !isTrying"
              >
                Try what would be
              </button>
              <button
                type="button"
                class="text-plate-act underline underline-offset-4"
                :aria-expanded="isWhy"
                @click="isWhy = !isWhy"
              >
                Why
              </button>
            </div>
          </section>
        </div>
        <AfterFit
          v-if="fit.after"
          class="mt-3 border-t border-rule pt-2"
          :fit="fit"
          :after="fit.after"
          @noted="now.load()"
        />
        <TryOut v-if="isTrying" class="mt-3" :now="now" />
        <section v-if="isWhy" class="mt-3 max-w-3xl" aria-label="The arithmetic">
          <TrailSteps :steps="fit.why" />
        </section>
        <FitLinks :fit="fit" />
        <FitNotes class="mt-3" :fit="fit" />
      </template>
    </template>
  </main>
</template>
