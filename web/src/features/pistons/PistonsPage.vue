<script setup lang="ts">
import { computed, ref } from 'vue'

import type { ClearanceView, MatchRowView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import StateGate from '@/shared/charts/StateGate.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import ClearanceStrip from './ClearanceStrip.vue'
import MatchForm from './MatchForm.vue'
import OrderForm from './OrderForm.vue'
import { scaleOf } from './scale'
import { usePistons } from './usePistons'

/** The match sheet: each bore and its piston, clearance by sizes and by feeler, the mark on the part, ring gaps. */
const job = useJob()
const now = usePistons(job)
const { sheet, refusal } = now
const open = ref<number | null>(null)
const ordering = ref<number | null>(null)
const rows = computed(() => sheet.value?.rows ?? [])
const scale = computed(() => scaleOf(rows.value))
const limits = computed(() => rows.value.find((row) => row.least_m !== null) ?? null)
const small = (metres: number) => lengthText(metres, unit.value)
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const found = (one: ClearanceView | null) =>
  one === null
    ? 'not read'
    : `${small(one.stated.value_m)} ±${uncertaintyText(one.stated.expanded_m, unit.value)}`
const agreement = (row: MatchRowView) =>
  row.agree === null
    ? ''
    : row.agree
      ? `they agree, ${small(Math.abs(row.apart?.value_m ?? 0))} apart`
      : `${small(Math.abs(row.apart?.value_m ?? 0))} apart, beyond ±${uncertaintyText(row.apart?.expanded_m ?? 0, unit.value)}`
const survey = (quantity: string, part: string) => ({ name: 'survey', params: { quantity, part } })
const TITLES: Record<string, string> = { in: 'in', out: 'out' }
const words = (row: MatchRowView) =>
  TITLES[row.state] ??
  (row.state === 'not measured' && row.by_sizes && row.by_feeler ? 'not marked yet' : row.state)
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-3 px-5 py-3">
    <header class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
      <h1 class="text-xl">Pistons in their holes</h1>
      <RouterLink class="link" :to="{ name: 'labels', params: { job: job.jobId }, query: { of: 'piston' } }"
        >Labels</RouterLink
      >
      <p v-if="limits" class="text-ink-soft">
        clearance wanted
        <b class="num text-ink">{{ small(limits.least_m ?? 0) }} to {{ small(limits.greatest_m ?? 0) }}</b>
        {{ unit }} on the diameter
      </p>
      <p v-else-if="sheet" class="text-unsure">
        The card wants no clearance:
        <RouterLink class="link" :to="{ name: 'job-card' }">write least and greatest on it</RouterLink>.
      </p>
    </header>
    <RefusalNote v-if="!sheet" :refusal="refusal" />
    <p v-if="!sheet && !refusal" class="text-ink-soft" aria-busy="true">The pistons are being loaded.</p>
    <section
      v-for="row in rows"
      :key="row.hole"
      class="border-t-2 border-rule pt-2"
      :aria-label="`Hole ${row.hole}`"
    >
      <div class="grid gap-x-6 gap-y-2 lg:grid-cols-[9rem_minmax(0,1fr)_15rem_15rem]">
        <div>
          <p class="text-4xl leading-tight font-bold">{{ row.hole }}</p>
          <p class="flex items-center gap-2 text-lg font-bold">
            <StateGate :state="row.state" /> {{ words(row) }}
          </p>
        </div>
        <div class="min-w-0">
          <ClearanceStrip :row="row" :scale="scale" />
          <dl class="mt-1 grid grid-cols-2 gap-x-4 text-sm">
            <div>
              <dt class="text-part">bore less skirt</dt>
              <dd>
                <b class="num text-lg">{{ found(row.by_sizes) }}</b>
                <span v-if="row.bore && row.skirt" class="num block text-ink-soft"
                  >{{ size(row.bore.value_m) }} less {{ size(row.skirt.value_m) }}</span
                >
                <RouterLink v-else class="link block" :to="survey('piston-skirt', `piston-${row.hole}`)"
                  >Read the piston</RouterLink
                >
              </dd>
            </div>
            <div>
              <dt>feeler beside the skirt</dt>
              <dd>
                <b class="num text-lg">{{ found(row.by_feeler) }}</b>
                <span v-if="row.by_feeler" class="block text-ink-soft">{{
                  row.method.replace('feeler, ', '')
                }}</span>
                <RouterLink v-else class="link block" :to="survey('piston-clearance', `piston-${row.hole}`)"
                  >Read it by feeler</RouterLink
                >
              </dd>
            </div>
          </dl>
          <p
            v-if="row.agree !== null"
            class="text-sm"
            :class="row.agree ? 'text-in' : 'font-bold text-unsure'"
          >
            {{ agreement(row) }}
          </p>
        </div>
        <div class="text-sm">
          <p class="text-ink-soft">on the piston</p>
          <template v-if="row.match">
            <p class="text-lg font-bold">{{ row.match.mark }}</p>
            <p>faces {{ row.match.faces }}</p>
            <p class="text-ink-soft">
              {{ row.match.run }}, pin {{ row.match.pin }}; {{ row.match.matched_by }}
            </p>
          </template>
          <p v-else class="text-lg">not marked</p>
          <button
            type="button"
            class="quiet mt-1"
            :aria-expanded="open === row.hole"
            @click="open = open === row.hole ? null : row.hole"
          >
            {{ row.match ? 'Mark it anew' : 'Mark it' }}
          </button>
          <button
            type="button"
            class="quiet mt-1 ml-3"
            :aria-expanded="ordering === row.hole"
            @click="ordering = ordering === row.hole ? null : row.hole"
          >
            Order to its size
          </button>
        </div>
        <div class="text-sm">
          <p class="text-ink-soft">ring gaps</p>
          <p v-if="row.unfrozen && !row.passed" class="text-unsure">
            Not before the bore is frozen: {{ row.unfrozen }}.
          </p>
          <template v-else>
            <p v-if="row.gaps?.read.length" class="num text-lg">
              {{ row.gaps.read.map((one) => small(one.value_m)).join(' · ') }}
              <span class="font-sans text-sm text-ink-soft">{{ unit }}</span>
            </p>
            <p v-else class="text-lg">not read</p>
            <p class="text-ink-soft">
              the bore is frozen{{ row.passed && row.unfrozen ? ', passed by name' : '' }}
              <RouterLink v-if="row.gaps" class="link ml-1" :to="survey('ring-gap', `hole-${row.hole}`)"
                >Read them</RouterLink
              >
            </p>
          </template>
          <p v-if="row.crown_less_m !== null && row.crown_less_m > 0" class="mt-1 text-ink-soft">
            crown {{ small(row.crown_less_m) }} smaller than the skirt
          </p>
        </div>
      </div>
      <p v-for="(said, at) in row.says" :key="at" class="mt-1 border-l-4 border-unsure pl-3 font-bold">
        <PhraseText :phrase="said" />
      </p>
      <OrderForm v-if="ordering === row.hole" :hole="row.hole" :job-id="job.jobId" />
      <MatchForm v-if="open === row.hole" :now="now" :row="row" :job-id="job.jobId" @kept="open = null" />
    </section>
    <p v-if="rows.length" class="text-sm text-ink-soft">
      A blade finds the whole gap only with the piston against the other wall. A fitted piston stays with its
      hole: stamp or paint it before it is lifted out.
    </p>
  </main>
</template>
