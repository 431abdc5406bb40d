<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import HolePicker from '@/shared/ui/HolePicker.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import { span } from './chart'
import HeatAir from './HeatAir.vue'
import HeatPairs from './HeatPairs.vue'
import HeatSchools from './HeatSchools.vue'
import HeatSeals from './HeatSeals.vue'
import HeatSliders from './HeatSliders.vue'
import HeatWays from './HeatWays.vue'
import HeatWhen from './HeatWhen.vue'
import HeatWindow from './HeatWindow.vue'
import { useHeat } from './useHeat'

/** Heat and cold: which temperatures let a liner drop, how long its window stays open, what water and air do. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const now = useHeat(job)
const { view, refusal, tried, hole } = now
const TABS = [
  { name: 'window', label: 'Drop window' },
  { name: 'ways', label: 'Temperatures' },
  { name: 'seals', label: 'Seals' },
  { name: 'air', label: 'Water and air' },
] as const
const tab = computed(() => TABS.find((one) => one.name === route.query['view'])?.name ?? 'window')
const plan = computed(() => view.value?.plan ?? null)
const holes = computed(() => job.block.value?.holes.map((one) => one.number) ?? [])
const small = (metres: number) => lengthText(metres, unit.value, { signed: true })
const show = (name: string) => void router.replace({ query: { ...route.query, view: name } })
const go = (to: number) =>
  void router.replace({ params: { ...route.params, hole: String(to) }, query: { view: tab.value } })
const choose = (pair: { block_c: number; liner_c: number }) => Object.assign(tried.value, pair)
const STATE = { 'drops freely': 'text-in', 'needs a push': 'text-unsure', grabs: 'text-out' }
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-2 px-5 py-2">
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">The drop is being worked out.</p>
    <template v-if="view">
      <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <RouterLink class="link" :to="{ name: 'fit', params: { hole: String(view.hole) } }">Fit</RouterLink>
        <h1 class="text-xl">
          Hole {{ view.hole }}<template v-if="view.liner"> and liner {{ view.liner }}</template
          >: heat and cold
        </h1>
        <HolePicker :holes="holes" :chosen="hole" @choose="go" />
        <p class="text-ink-soft">{{ view.liner_material }} in {{ view.block_material }}</p>
        <nav class="ml-auto flex gap-1" aria-label="Parts of the plan">
          <button
            v-for="one in TABS"
            :key="one.name"
            type="button"
            class="min-h-11 border-b-4 px-3"
            :class="tab === one.name ? 'border-act font-bold' : 'border-transparent'"
            :aria-pressed="tab === one.name"
            @click="show(one.name)"
          >
            {{ one.label }}
          </button>
        </nav>
      </header>
      <div class="grid items-start gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_23rem]">
        <div class="min-w-0">
          <section
            v-if="view.missing"
            class="max-w-3xl border-l-4 border-unsure py-1 pl-4"
            aria-label="No plan yet"
          >
            <p class="text-lg font-bold"><PhraseText :phrase="view.missing" /></p>
            <p class="mt-1 flex gap-5">
              <RouterLink
                class="link"
                :to="{ name: 'survey', params: { quantity: 'block-bore', part: `hole-${view.hole}` } }"
                >Read the hole</RouterLink
              ><RouterLink class="link" :to="{ name: 'job-card' }">The card</RouterLink>
            </p>
          </section>
          <HeatSeals v-if="tab === 'seals'" :seals="view.seals" :tried="tried" />
          <template v-else-if="plan">
            <HeatWindow v-if="tab === 'window'" :plan="plan" :tried="tried" />
            <div v-else-if="tab === 'ways'" class="grid gap-3">
              <div class="grid items-start gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,27rem)_minmax(0,1fr)]">
                <HeatPairs :plan="plan" :tried="tried" @choose="choose" />
                <HeatSchools :view="view" :held="plan.held_s" />
              </div>
              <HeatWays :ways="plan.ways" @choose="choose" />
            </div>
            <HeatAir v-else :plan="plan" :tried="tried" />
          </template>
        </div>
        <aside class="grid min-w-0 content-start gap-4">
          <HeatSliders :tried="tried" />
          <RouterLink
            v-if="plan && view.liner"
            class="act flex items-center justify-center text-lg"
            :to="{ name: 'heat-run', params: { hole: String(view.hole) }, query: { liner: view.liner } }"
            >Run it</RouterLink
          >
          <HeatWhen v-if="plan && tab === 'ways'" :plan="plan" :job-id="job.jobId" />
          <section v-if="plan" aria-label="What the fit does">
            <dl class="grid">
              <div class="flex justify-between gap-3 border-b border-rule py-1">
                <dt>
                  Press cold, worst pair {{ small(plan.press.value_m) }} ±{{
                    uncertaintyText(plan.press.expanded_m, unit)
                  }}
                </dt>
                <dd class="num font-bold">{{ small(plan.worst_m) }} {{ unit }}</dd>
              </div>
              <div class="flex justify-between gap-3 border-b border-rule py-1">
                <dt>Clear as both leave</dt>
                <dd class="num font-bold" :class="STATE[plan.at_start]">
                  {{ small(plan.clearance_m) }} {{ unit }}
                </dd>
              </div>
              <div class="flex justify-between gap-3 border-b border-rule py-1">
                <dt>Block soaks, oven · bath; takes</dt>
                <dd class="num font-bold">
                  {{ span(plan.oven_s) }} · {{ span(plan.bath_s) }}; {{ plan.energy_kwh.toFixed(1) }} kWh
                </dd>
              </div>
              <div v-if="plan.liner_s !== null" class="flex justify-between gap-3 border-b border-rule py-1">
                <dt>Liner soaks, {{ plan.medium }}</dt>
                <dd class="num font-bold">{{ span(plan.liner_s) }}</dd>
              </div>
              <div class="flex justify-between gap-3 border-b border-rule py-1">
                <dt>Held down, to within 5 K of the room</dt>
                <dd class="num font-bold">{{ span(plan.held_s) }}</dd>
              </div>
              <div v-if="plan.boils_kg" class="flex justify-between gap-3 border-b border-rule py-1">
                <dt class="first-letter:uppercase">{{ plan.medium }} for this liner</dt>
                <dd class="num font-bold">{{ plan.boils_kg.toFixed(1) }} kg</dd>
              </div>
            </dl>
            <p class="mt-2 font-bold" :class="STATE[plan.at_start]"><PhraseText :phrase="plan.says" /></p>
            <p v-if="!plan.wall_known" class="text-sm text-unsure">
              The card does not say the outside of the wall round the hole:
              {{ lengthText(plan.wall_m, 'mm') }} mm counts as warm.
            </p>
          </section>
          <p v-for="one in plan?.against ?? []" :key="one" class="border-l-4 border-out pl-3 font-bold">
            <span class="inline-block first-letter:uppercase">{{ one }}</span>
          </p>
          <p v-for="one in plan?.cautions ?? []" :key="one" class="caution">{{ one }}</p>
        </aside>
      </div>
    </template>
  </main>
</template>
