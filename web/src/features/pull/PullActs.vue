<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PullMarkKind, PullPageView, PullView } from '@/api/generated'

import type { DepthGauge } from './useDepthGauge'
import type { PullNow } from './usePull'
import { crankWords, forceText, watchWords } from './words'

/** Who does what next, what the last turn felt like, the turn, the depth, the stop; and the plan for one that is stuck. */
const props = defineProps<{
  now: PullNow
  page: PullPageView
  pull: PullView
  gauge: DepthGauge
  looking: boolean
  jobId: string
}>()
const words = defineModel<string>('words', { required: true })
const emit = defineEmits<{ tap: []; goOn: []; draw: [] }>()
const depth = ref('')
const force = ref('')
const isStuck = computed(() => props.pull.state === 'stopped half-way')
const isTouched = computed(() => props.pull.state.startsWith('touched'))
const isOver = computed(() => props.pull.state === 'home')
const next = computed(() => props.pull.checks.find((one) => !one.done_by) ?? null)
const isHeld = computed(() => props.pull.marks.some((one) => one.kind === 'held under load'))
const FEELS: { kind: PullMarkKind; key: string; d: string }[] = [
  { kind: 'smooth', key: 'S', d: 'M2 14Q24 12 50 4' },
  { kind: 'pops', key: 'P', d: 'M2 14H16l4 -10 5 10h4l5 -10 5 10h11' },
  { kind: 'twists', key: 'T', d: 'M8 14Q16 -2 36 6m-7 -5 8 6-8 5' },
]
async function take(text = depth.value): Promise<void> {
  if (await props.now.note('flange to ledge', { depth: text, force_kn: force.value }))
    depth.value = force.value = ''
}
</script>

<template>
  <section class="grid min-w-0 content-start gap-3" aria-label="What is done">
    <template v-if="looking">
      <h2 class="text-xl">Look first</h2>
      <ol class="grid gap-1">
        <li
          v-for="one in pull.checks"
          :key="one.kind"
          class="flex items-center justify-between border-b border-rule py-1.5"
          :class="one.done_by ? 'text-ink-soft' : one.kind === next?.kind ? 'font-bold' : ''"
        >
          <span>{{ one.kind }}</span><span v-if="one.done_by" class="text-in">{{ one.done_by }}</span>
        </li>
      </ol>
      <button type="button" class="act min-h-20 text-2xl" :disabled="now.busy.value" @click="emit('tap')">
        {{ next?.kind }}
      </button>
      <p class="text-sm text-ink-soft">pedal or space, one by one</p>
    </template>
    <template v-else-if="isOver">
      <h2 class="text-xl">{{ pull.liner }} is home in hole {{ page.hole }}</h2>
      <p>Its bore and its height are to be read now: a prediction that nobody confirmed stays open.</p>
      <RouterLink
        class="act inline-flex items-center justify-self-start"
        :to="{ name: 'survey', params: { job: jobId, quantity: 'liner-bore', part: `hole-${page.hole}` } }"
        >Read its bore</RouterLink
      >
      <RouterLink
        class="quiet inline-flex items-center justify-self-start"
        :to="{ name: 'bench', params: { job: jobId, lens: 'protrusion', hole: String(page.hole) } }"
        >Read how it stands</RouterLink
      >
    </template>
    <template v-else>
      <div v-if="!isStuck && !isTouched" class="grid grid-cols-2 gap-4">
        <div class="border-t-2 border-ink pt-1">
          <p>
            <b class="text-xl">{{ pull.cranks || 'One' }}</b> <span class="ml-1 text-ink-soft">cranks</span>
          </p>
          <p class="text-lg leading-snug">{{ crankWords(pull.to_go_m) }}</p>
        </div>
        <div class="border-t-2 border-ink pt-1">
          <p>
            <b class="text-xl">{{ pull.watches || 'The other' }}</b>
            <span class="ml-1 text-ink-soft">watches</span>
          </p>
          <p class="text-lg leading-snug">{{ watchWords(pull) }}</p>
        </div>
      </div>
      <template v-if="!isStuck && !isTouched">
        <p class="text-ink-soft">What did the last turn feel like?</p>
        <div class="grid grid-cols-3 gap-2">
          <button
            v-for="one in FEELS"
            :key="one.kind"
            type="button"
            class="grid min-h-20 place-items-center rounded border py-2"
            :class="pull.feel === one.kind ? 'border-ink bg-part-wash' : 'border-ink-soft bg-sheet'"
            :aria-pressed="pull.feel === one.kind"
            @click="now.note(one.kind)"
          >
            <svg v-legible viewBox="0 0 52 18" class="h-5 w-14">
              <path :d="one.d" class="fill-none stroke-ink" stroke-width="2.4" />
            </svg>
            <b class="text-lg">{{ one.kind }}</b><span class="text-xs text-ink-soft max-sm:hidden">{{
              one.key
            }}</span>
          </button>
        </div>
        <button
          v-if="pull.turn_m !== null"
          type="button"
          class="act min-h-24 text-2xl"
          :disabled="now.busy.value"
          @click="emit('tap')"
        >
          One turn, {{ (pull.turn_m * 1000).toFixed(1).replace('.0', '') }} mm
          <span class="block text-sm font-normal max-sm:hidden"
            >pedal or space, when the handle is round</span
          >
        </button>
        <form
          class="grid grid-cols-[1fr_1fr_auto] items-end gap-2 max-sm:order-last"
          @submit.prevent="take()"
        >
          <label class="grid gap-1 text-sm"
            >flange to ledge, mm<input v-model="depth" class="field" inputmode="decimal" name="depth"
          /></label>
          <label class="grid gap-1 text-sm"
            >force, kN<input v-model="force" class="field" inputmode="decimal" name="force"
          /></label>
          <button type="submit" class="quiet min-h-11">Read it</button>
        </form>
        <button
          v-if="gauge.text.value"
          type="button"
          class="quiet min-h-11 text-left max-sm:order-last"
          @click="take(gauge.text.value)"
        >
          Take {{ gauge.name.value }}: <b class="num">{{ gauge.text.value }}</b>
        </button>
        <button
          type="button"
          class="flex min-h-16 items-center gap-4 rounded border-2 border-ink px-4 py-2 text-left"
          :disabled="now.busy.value"
          @click="now.note('touches', { depth })"
        >
          <svg v-legible viewBox="0 0 44 40" class="h-10 w-11">
            <path d="M2 2h40v6H2z" class="fill-ink" />
            <path d="M4 12h36v5H4z" class="fill-part" />
            <path d="M14 19v20M30 19v20M14 19h16" class="fill-none stroke-ink" stroke-width="2.5" />
          </svg>
          <span
            ><b class="text-xl">It touches: stop</b><br /><span class="text-sm text-ink-soft">{{
              pull.stop === 'stop at contact'
                ? 'rule of this job: never press it into the ledge'
                : 'then hold it under load'
            }}</span></span
          >
        </button>
      </template>
      <template v-if="isTouched">
        <h2 class="text-xl">It touches</h2>
        <button
          v-if="pull.stop === 'hold under load' && !isHeld"
          type="button"
          class="act min-h-16 text-xl"
          @click="
            now.note('held under load', { words: `${page.dwell_kn ?? '…'} kN, ${page.dwell_min ?? '…'} min` })
          "
        >
          Held at {{ page.dwell_kn ?? '…' }} kN for {{ page.dwell_min ?? '…' }} min
        </button>
        <button
          v-else
          type="button"
          class="act min-h-20 text-2xl"
          :disabled="now.busy.value"
          @click="now.home()"
        >
          {{ pull.liner }} is home
        </button>
        <p class="text-ink-soft">A thin feeler must enter nowhere under the flange.</p>
      </template>
      <div v-if="isStuck" class="grid gap-2">
        <h2 class="text-xl text-out">It stands half-way</h2>
        <p v-for="line in page.stuck" :key="line">{{ line }}</p>
        <label class="grid gap-1">What was done<input v-model="words" class="field" /></label>
        <div class="grid grid-cols-2 gap-2">
          <button type="button" class="act" :disabled="!words.trim()" @click="emit('goOn')">
            It goes on
          </button>
          <button type="button" class="quiet min-h-11" :disabled="!words.trim()" @click="emit('draw')">
            It was drawn out
          </button>
        </div>
      </div>
      <div class="grid grid-cols-2 gap-2">
        <button
          v-if="!isStuck"
          type="button"
          class="quiet min-h-11"
          @click="now.note('stopped half-way', { words: 'stopped by hand' })"
        >
          It stops half-way
        </button>
        <button type="button" class="quiet min-h-11" @click="now.undo()">Undo the last</button>
      </div>
      <p v-for="line in page.cautions" :key="line" class="caution">
        {{ line }} Local rules and licensed practice come first.
      </p>
      <p v-if="pull.capacity_n" class="text-sm text-ink-soft max-sm:hidden">
        {{ pull.tool }} gives {{ forceText(pull.capacity_n) }} kN.
      </p>
    </template>
  </section>
</template>
