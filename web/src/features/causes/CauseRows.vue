<script setup lang="ts">
import { computed } from 'vue'

import type { CausesView, NextCheckView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import CauseLooks from './CauseLooks.vue'
import { effectText, isScatter, nameOf, share } from './words'

/** Causes by weight: how each would look, how likely it is, and what the weights would be after the check at hand. */
const props = defineProps<{ view: CausesView; check: NextCheckView | null; wide: number }>()
/** At least so many are shown, then those that can still be told from nothing. */
const LEAST = 1
const MOST = 7
const TOLD = 0.005
const digits = computed(() => (unit.value === 'thou' ? 1 : 0))
const small = (metres: number) => lengthText(metres, unit.value, { digits: digits.value, signed: true })
const shown = computed(() =>
  Math.min(MOST, Math.max(LEAST, props.view.explained.filter((one) => one.weight >= TOLD).length)),
)
const rows = computed(() =>
  props.view.explained.slice(0, shown.value).map((one, at) => ({
    one,
    key: `${nameOf(one)} ${one.where.join('|')} ${one.words.join('|')}`,
    shares: [
      one.weight,
      ...(props.check ? [props.check.if_found[at] ?? 0, props.check.if_not[at] ?? 0] : []),
    ],
  })),
)
</script>

<template>
  <table class="w-full table-fixed text-left" aria-label="What may be behind it">
    <thead class="text-sm text-ink-soft">
      <tr class="border-b-2 border-ink align-bottom">
        <th scope="col" class="w-[14.75rem] py-1 font-normal">cause, as it would look</th>
        <th scope="col" class="max-lg:hidden" :style="`width: ${wide}px`">
          <span class="sr-only">how the readings would look</span>
        </th>
        <th scope="col" class="font-normal lg:pl-5">how likely now</th>
        <th v-if="check" scope="col" class="font-normal max-lg:hidden">
          if it reads <b class="num">{{ small(check.expected_m) }}</b>
        </th>
        <th v-if="check" scope="col" class="font-normal max-lg:hidden">if it reads <b class="num">0</b></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.key" class="border-b border-rule">
        <th
          scope="row"
          class="py-0.5 pr-3 text-[0.95rem] leading-tight"
          :class="row.one.weight < 0.05 && 'text-ink-soft'"
        >
          {{ nameOf(row.one) }}
          <span class="block text-sm font-normal text-ink-soft" :title="row.one.shows">{{
            effectText(row.one, small, view.matter === 'bores') || row.one.shows
          }}</span>
        </th>
        <td class="max-lg:hidden">
          <CauseLooks
            v-if="!isScatter(row.one)"
            :holes="view.holes"
            :looks="row.one.looks_m"
            :wide="wide"
            :likely="row.one.weight >= 0.05"
          />
        </td>
        <td
          v-for="(weight, column) in row.shares"
          :key="column"
          :class="column === 0 ? 'lg:pl-5' : 'max-lg:hidden'"
        >
          <span class="flex items-center gap-2"
            ><span
              aria-hidden="true"
              class="h-4 border-l border-ink-soft"
              :class="column === 0 ? 'bg-ink' : 'bg-part'"
              :style="`width: ${Math.round(weight * 58) + 1}px`"
            ></span
            ><span class="num" :class="weight >= 0.05 ? 'font-bold' : 'text-ink-soft'">{{
              share(weight)
            }}</span></span
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>
