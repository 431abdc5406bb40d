<script setup lang="ts">
import type { HeatSealView } from '@/api/generated'

import type { Tried } from './useHeat'

/** The rings of the hole in their order: squeeze and room in the groove, what each bears beside both temperatures. */
defineProps<{ seals: HeatSealView[]; tried: Tried }>()
const FROM = -200
const TO = 220
const x = (celsius: number) => ((Math.min(TO, Math.max(FROM, celsius)) - FROM) / (TO - FROM)) * 500
const percent = (share: number | null) => (share === null ? '–' : `${Math.round(100 * share)} %`)
const minus = (celsius: number | null) => String(celsius ?? '').replace('-', '−')
</script>

<template>
  <p v-if="!seals.length" class="border-l-4 border-rule py-1 pl-4 text-ink-soft">
    The card names no seals: write their grooves and rings under <i>Conversion</i>, then they stand here.
  </p>
  <ol v-else class="grid gap-4">
    <li
      v-for="(one, at) in seals"
      :key="one.seal.name"
      class="grid gap-x-6 gap-y-1 border-b border-rule pb-4"
    >
      <div class="flex flex-wrap items-baseline gap-x-4">
        <b class="num text-3xl">{{ at + 1 }}</b>
        <h2 class="text-lg font-bold">{{ one.seal.name }}</h2>
        <p class="text-ink-soft">
          {{ one.seal.material || 'rubber not named' }}, groove in the {{ one.seal.groove_in }},
          {{ one.seal.grease || 'no grease named' }}
        </p>
      </div>
      <dl class="grid grid-cols-2 gap-x-6 sm:grid-cols-4">
        <div>
          <dt class="text-sm text-ink-soft">squeezed</dt>
          <dd class="num text-2xl font-bold">{{ percent(one.seal.squeeze) }}</dd>
          <dd v-if="one.seal.squeeze !== null" class="text-sm text-ink-soft">
            {{ percent(one.seal.squeeze_least) }} to {{ percent(one.seal.squeeze_greatest) }} off centre
          </dd>
        </div>
        <div>
          <dt class="text-sm text-ink-soft">stretched</dt>
          <dd class="num text-2xl font-bold">{{ percent(one.seal.stretch) }}</dd>
        </div>
        <div>
          <dt class="text-sm text-ink-soft">fills its groove</dt>
          <dd class="num text-2xl font-bold">{{ percent(one.seal.fill) }}</dd>
        </div>
        <div>
          <dt class="text-sm text-ink-soft">hot and swollen</dt>
          <dd class="num text-2xl font-bold" :class="(one.seal.fill_hot ?? 0) > 1 && 'text-out'">
            {{ percent(one.seal.fill_hot) }}
          </dd>
        </div>
      </dl>
      <div class="max-w-2xl">
        <svg viewBox="0 0 500 26" preserveAspectRatio="none" class="block h-7 w-full" aria-hidden="true">
          <rect x="0" y="9" width="500" height="8" class="fill-iron" />
          <rect
            v-if="one.coldest_c !== null && one.warmest_c !== null"
            :x="x(one.coldest_c)"
            y="9"
            :width="x(one.warmest_c) - x(one.coldest_c)"
            height="8"
            class="fill-in"
          />
          <rect :x="x(tried.liner_c) - 2" y="1" width="4" height="24" class="fill-part" />
          <rect :x="x(tried.block_c) - 2" y="1" width="4" height="24" class="fill-act" />
        </svg>
        <p class="text-sm">
          <template v-if="one.coldest_c !== null"
            >bears <b class="num">{{ minus(one.coldest_c) }} to {{ minus(one.warmest_c) }} °C</b>,
            {{ one.known_by }};</template
          >
          <template v-else>nobody says what it bears;</template>
          liner <b class="num text-part">{{ minus(tried.liner_c) }}</b>, block
          <b class="num text-act">{{ minus(tried.block_c) }} °C</b>
        </p>
      </div>
      <p
        v-for="said in [...one.minds, ...one.seal.against]"
        :key="said"
        class="border-l-4 border-unsure pl-3 font-bold"
      >
        <span class="inline-block first-letter:uppercase">{{ said }}</span>
      </p>
    </li>
  </ol>
  <p class="mt-3 text-sm text-ink-soft">
    They go on in this order. Wipe groove, seat and lead-in; grease ring and wall; the liner straight down. An
    edge without a chamfer cuts a ring that nobody sees again.
  </p>
</template>
