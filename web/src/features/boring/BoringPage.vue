<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import HolePicker from '@/shared/ui/HolePicker.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import BarNotes from './BarNotes.vue'
import PassForm from './PassForm.vue'
import PassLedger from './PassLedger.vue'
import SettingCard from './SettingCard.vue'
import StepStrip from './StepStrip.vue'
import TargetStrip from './TargetStrip.vue'
import { useBoring } from './useBoring'

/** A bore pass by pass: what its piston asks for, what is left to take, the next cut, and whether it all adds up. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const now = useBoring(job)
const { view, refusal, cuts } = now
const go = (hole: number) => void router.replace({ params: { ...route.params, hole: String(hole) } })
const small = (metres: number) => lengthText(metres, unit.value)
const RUNS = [
  ['bore_c', 'bore runs at'],
  ['piston_c', 'piston runs at'],
] as const
const ledger = computed(() => view.value?.ledger ?? null)
const share = computed(() => {
  const spring = ledger.value?.spring
  return spring ? `${spring.ratio.toFixed(2)} ±${spring.within.toFixed(2)}` : null
})
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start px-5 py-2">
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">The passes are being loaded.</p>
    <template v-if="view && ledger">
      <header class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <RouterLink class="link" :to="{ name: 'block', params: { lens: 'bore', hole: String(view.hole) } }"
          >Block</RouterLink
        >
        <h1 class="text-xl">Bore hole {{ view.hole }} to its {{ view.made ? 'step' : 'piston' }}</h1>
        <HolePicker :holes="view.holes" :chosen="view.hole" @choose="go" />
      </header>
      <TargetStrip v-if="view.target" :target="view.target" />
      <StepStrip v-else-if="view.made" :made="view.made" />
      <section v-else class="max-w-3xl border-l-4 border-unsure py-1 pl-4" aria-label="No size yet">
        <p v-if="view.refused" class="text-lg font-bold"><PhraseText :phrase="view.refused" /></p>
        <p class="mt-1 flex gap-5">
          <RouterLink
            class="link"
            :to="{ name: 'survey', params: { quantity: 'piston-skirt', part: `piston-${view.hole}` } }"
            >Read the piston</RouterLink
          ><RouterLink class="link" :to="{ name: 'job-card' }">The card</RouterLink>
        </p>
      </section>
      <div class="mt-3 grid items-start gap-x-8 gap-y-4 lg:grid-cols-[25rem_minmax(0,1fr)]">
        <div class="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3">
          <div class="grid items-start gap-4 sm:grid-cols-2">
            <section aria-label="Left to take">
              <p class="text-ink-soft">left to bore, on the diameter</p>
              <p v-if="ledger.to_go_m !== null" class="flex items-end gap-3">
                <b class="num text-[4.2rem] leading-none">{{ small(Math.max(0, ledger.to_go_m)) }}</b>
                <span class="pb-2 text-xl text-ink-soft"
                  >{{ unit
                  }}<b class="num block text-ink">±{{ uncertaintyText(ledger.within_m, unit) }}</b></span
                >
              </p>
              <p v-else class="text-3xl font-bold">not known</p>
              <p v-if="ledger.present_m !== null" class="text-ink-soft">
                {{ ledger.to_go_m === null ? '' : `${small(Math.max(0, ledger.to_go_m) / 2)} a side · ` }}it
                stands at <span class="num">{{ lengthText(ledger.present_m, SIZE_WITH[unit]) }}</span>
                {{ SIZE_WITH[unit] }},
                {{ ledger.is_read ? 'as read' : 'by the dial: read it' }}
              </p>
            </section>
            <section
              v-if="ledger.next_dial_m !== null"
              class="border-l border-rule pl-4"
              aria-label="The next cut"
            >
              <p class="text-ink-soft">next cut: the dial, a side</p>
              <p class="num text-[4.2rem] leading-none font-bold text-act">
                {{ small(ledger.next_dial_m)
                }}<span class="ml-2 text-base font-normal text-ink-soft">{{ unit }}</span>
              </p>
              <p class="text-sm text-ink-soft">
                {{ ledger.passes_left }} pass{{ ledger.passes_left === 1 ? '' : 'es' }} left, the last takes
                {{ small(ledger.last_m ?? 0) }} on the diameter<template
                  v-if="ledger.minutes && ledger.passes_left"
                  >; about {{ Math.round(ledger.minutes * ledger.passes_left) }} min at
                  {{ Math.round(ledger.minutes) }} a pass</template
                >
              </p>
              <p class="text-sm" :class="share ? '' : 'text-ink-soft'">
                <template v-if="share"
                  >The tool takes <b class="num">{{ share }}</b> of what its dial says, from
                  {{ ledger.spring?.passes }} passes.</template
                >
                <template v-else
                  >What the tool springs is not learned yet: read before and after two passes.</template
                >
              </p>
            </section>
          </div>
          <PassForm :key="view.hole" :now="now" :job-id="job.jobId" />
        </div>
        <div class="grid min-w-0 gap-3">
          <section v-if="ledger.asks.length" role="alert" class="border-l-4 border-unsure py-1 pl-4">
            <p v-for="said in ledger.asks" :key="said.text + String(said.terms[0]?.value)" class="font-bold">
              <PhraseText :phrase="said" />
            </p>
          </section>
          <BarNotes :now="now" :view="view" />
          <SettingCard :key="view.hole" :now="now" :setting="view.setting" :job-id="job.jobId" />
          <PassLedger :ledger="ledger" />
          <section class="grid gap-x-6 gap-y-1 text-sm sm:grid-cols-2" aria-label="Try">
            <label class="grid"
              >deepest cut, a side: <b class="num">{{ small(cuts.deepest_um / 1e6) }} {{ unit }}</b>
              <input
                v-model.number="cuts.deepest_um"
                type="range"
                class="accent-act"
                min="25"
                max="500"
                step="5"
            /></label>
            <label class="grid"
              >last cut, on the diameter: <b class="num">{{ small(cuts.last_um / 1e6) }} {{ unit }}</b>
              <input v-model.number="cuts.last_um" type="range" class="accent-act" min="5" max="150" step="5"
            /></label>
            <template v-if="view.target">
              <label v-for="[name, what] in RUNS" :key="name" class="grid"
                >{{ what }} <b class="num">{{ cuts[name] ?? view.target[name] }} °C</b>
                <input
                  :value="cuts[name] ?? view.target[name]"
                  type="range"
                  class="accent-act"
                  min="20"
                  max="350"
                  step="5"
                  @input="cuts[name] = Number(($event.target as HTMLInputElement).value)"
              /></label>
              <p class="sm:col-span-2" :class="view.target.hot_m < 0 && 'font-bold text-out'">
                At these temperatures the piston has
                <span class="num">{{ lengthText(view.target.hot_m, unit, { signed: true }) }}</span>
                {{ unit }} of clearance.
              </p>
            </template>
          </section>
          <p v-for="one in view.target?.cautions ?? []" :key="one" class="caution">{{ one }}</p>
          <p class="text-sm text-ink-soft">
            First cut light: look, listen, then adjust. Eye protection; no gloves, no sleeves near the bar;
            stop it before anything is measured.
          </p>
        </div>
      </div>
    </template>
  </main>
</template>
