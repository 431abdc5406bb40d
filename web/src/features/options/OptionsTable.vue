<script setup lang="ts">
import { computed } from 'vue'

import type { HeightAfterView, OptionKind, OptionOfHole, OptionsView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import OptionDots from './OptionDots.vue'
import OptionSection from './OptionSection.vue'
import { capital, moneyText, standText, waitText } from './words'

/** One column for each thing that can be done: section, every hole, what moves with it, cost, what is for good. */
const props = defineProps<{ view: OptionsView; hole: number; picked: OptionKind }>()
const emit = defineEmits<{ pick: [kind: OptionKind] }>()
const big = computed(() => (unit.value === 'thou' ? 'inch' : 'mm'))
const size = (metres: number) =>
  lengthText(metres, big.value, { digits: unit.value === 'thou' ? 4 : 3, signed: false })
const told = computed(() => props.view.options.filter((one) => one.holes.length))
const ends = computed(() => {
  const rows = told.value.flatMap((one) => one.holes)
  const all = rows.flatMap((one) => [one.value.value_m, one.least_m, one.greatest_m])
  return { high: Math.max(...all) + 12e-6, low: Math.min(...all) - 12e-6 }
})
const names = computed(() => told.value[0]?.heights.map((one) => one.name) ?? [])
const KEEP = { true: 'text-in', false: 'text-out' } as Record<string, string>
const of = (one: OptionOfHole, name: string): HeightAfterView | undefined =>
  one.heights.find((row) => row.name === name)
/** What a height keeps to: the same for every option. */
const limitsOf = (name: string) => {
  const one = told.value[0]?.heights.find((row) => row.name === name)
  const [least, most] = [one?.least_m, one?.greatest_m]
  if (least != null && most != null) return `${size(least)} to ${size(most)}`
  return least != null ? `least ${size(least)}` : most != null ? `most ${size(most)}` : ''
}
const shade = (kind: OptionKind) => (kind === props.picked ? 'bg-act-wash' : '')
const squeezed = computed(() => told.value.some((one) => one.compression.length))
</script>

<template>
  <div class="relative overflow-x-auto">
    <table
      class="w-full min-w-[68rem] table-fixed text-left align-top leading-tight"
      aria-label="What can be done"
    >
      <thead>
        <tr>
          <td class="w-32"></td>
          <th
            v-for="one in view.options"
            :key="one.kind"
            scope="col"
            class="px-2 pt-1 align-top font-normal"
            :class="[
              shade(one.kind),
              one.kind === picked ? 'border-t-4 border-ink' : 'border-t-4 border-transparent',
            ]"
          >
            <button
              type="button"
              class="flex min-h-9 w-full items-center gap-2 text-left font-bold"
              :aria-pressed="one.kind === picked"
              @click="emit('pick', one.kind)"
            >
              <span
                aria-hidden="true"
                class="grid h-4 w-4 shrink-0 place-items-center rounded-full border-2 border-ink"
                ><span v-if="one.kind === picked" class="h-2 w-2 rounded-full bg-ink"></span></span
              >{{ capital(one.kind) }}
            </button>
            <span class="text-sm text-ink-soft">{{ one.detail }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row" class="pt-2 align-top text-sm font-normal text-ink-soft">
            section of hole {{ hole }}
          </th>
          <td
            v-for="one in view.options"
            :key="one.kind"
            class="px-2 pt-1 align-top"
            :class="shade(one.kind)"
          >
            <p v-if="one.why_not" class="text-sm text-ink-soft">{{ one.why_not }}</p>
            <OptionSection v-else :option="one" :hole="hole" />
          </td>
        </tr>
        <tr class="border-b-2 border-ink">
          <th scope="row" class="align-top text-sm font-normal text-ink-soft">afterwards, {{ unit }}</th>
          <td v-for="one in view.options" :key="one.kind" class="px-2 align-top" :class="shade(one.kind)">
            <OptionDots v-if="one.holes.length" :option="one" :high="ends.high" :low="ends.low" />
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th scope="row" class="py-1 text-sm font-normal text-ink-soft">all holes</th>
          <td v-for="one in view.options" :key="one.kind" class="px-2 font-bold" :class="shade(one.kind)">
            <span
              v-if="one.holes.length"
              :class="one.out ? 'text-out' : one.unsure ? 'text-unsure' : 'text-in'"
              >{{ standText(one) }}</span
            >
          </td>
        </tr>
        <tr v-for="name in names" :key="name" class="border-b border-rule">
          <th scope="row" class="py-1 text-sm font-normal text-ink-soft">
            {{ name }}<span class="block">{{ limitsOf(name) }}</span>
          </th>
          <td v-for="one in view.options" :key="one.kind" class="px-2" :class="shade(one.kind)">
            <b
              v-if="of(one, name)?.after_m != null"
              class="num"
              :class="KEEP[String(of(one, name)?.keeps)] ?? ''"
              >{{ size(of(one, name)?.after_m ?? 0) }}</b
            >
          </td>
        </tr>
        <tr v-if="squeezed" class="border-b border-rule">
          <th scope="row" class="py-1 text-sm font-normal text-ink-soft">compression</th>
          <td v-for="one in view.options" :key="one.kind" class="num px-2" :class="shade(one.kind)">
            <template v-if="one.compression.length"
              ><b>{{ one.compression[1]?.toFixed(2) }}</b> : 1</template
            >
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th scope="row" class="py-1 text-sm font-normal text-ink-soft">ledge spent</th>
          <td v-for="one in view.options" :key="one.kind" class="px-2" :class="shade(one.kind)">
            <span v-if="one.holes.length" class="num"
              ><b>{{ size(one.spent_m) }}</b> {{ big
              }}{{ one.skim_m ? `, ${size(one.skim_m)} off the deck` : '' }}</span
            >
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th scope="row" class="py-1 text-sm font-normal text-ink-soft">money</th>
          <td v-for="one in view.options" :key="one.kind" class="px-2" :class="shade(one.kind)">
            <template v-if="one.holes.length || one.hours"
              ><b class="num">{{ moneyText(one.money, view.currency) }}</b>
              <span v-if="one.parts" class="text-sm text-ink-soft">
                with {{ moneyText(one.parts, view.currency) }} parts</span
              ></template
            >
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th scope="row" class="py-1 text-sm font-normal text-ink-soft">hours, waiting</th>
          <td v-for="one in view.options" :key="one.kind" class="px-2" :class="shade(one.kind)">
            <template v-if="one.holes.length || one.hours">{{ waitText(one) }}</template>
          </td>
        </tr>
        <tr class="align-top">
          <th scope="row" class="py-1 text-sm font-normal text-ink-soft">cannot be undone</th>
          <td v-for="one in view.options" :key="one.kind" class="px-2 py-1 text-sm" :class="shade(one.kind)">
            {{ one.final }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
