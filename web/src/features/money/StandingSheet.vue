<script setup lang="ts">
import { computed } from 'vue'

import type { Sheet, StandingView } from '@/api/generated'

import { hours, money, number } from './words'

/** One sheet of the agreed estimate: at least, at worst, used so far, taken off, each on a small rule of its own. */
const props = defineProps<{ title: string; sheet: Sheet; standing: StandingView; currency: string }>()
const labour = computed(() => props.sheet !== 'parts')
const lines = computed(() => props.standing.lines.filter((one) => one.sheet === props.sheet))
const most = computed(() =>
  Math.max(1, ...lines.value.flatMap((one) => [number(one.worst), number(one.used)])),
)
const WIDTH = 76
const x = (value: number | string | null) => 1 + (WIDTH - 2) * Math.min(number(value) / most.value, 1)
const shown = (value: number | string | null) => (labour.value ? hours(value) : money(value))
const sum = (pick: (one: StandingView['lines'][number]) => number | string | null) =>
  lines.value.reduce((total, one) => total + number(pick(one)), 0)
</script>

<template>
  <div class="relative overflow-x-auto bg-sheet px-3 py-1" tabindex="0" role="region" :aria-label="title">
    <table class="w-full">
      <thead class="border-b-2 border-ink text-right text-sm text-ink-soft">
        <tr>
          <th class="py-2 pr-3 text-left text-base whitespace-nowrap text-ink">{{ title }}</th>
          <th class="text-left font-normal">
            0 to {{ labour ? `${most.toFixed(0)} h` : `${most.toFixed(0)} ${currency}` }}
          </th>
          <th class="font-normal">low</th>
          <th class="pl-2 font-normal">worst</th>
          <th class="pl-2 font-normal">{{ labour ? 'used h' : 'so far' }}</th>
          <th v-if="labour" class="pl-2 font-normal">worst {{ currency }}</th>
          <th class="pl-2 font-normal">off</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in lines" :key="one.key" class="border-b border-rule">
          <th scope="row" class="py-0.5 pr-2 text-left text-sm font-normal">{{ one.words }}</th>
          <td class="pr-2">
            <svg :width="WIDTH" height="18" aria-hidden="true" class="block">
              <rect
                x="1"
                y="2"
                :width="Math.max(x(one.worst) - 1, 2)"
                height="14"
                rx="2"
                class="fill-paper stroke-ink"
                stroke-width="1.4"
              />
              <rect
                v-if="number(one.off) > 0"
                :x="x(one.used)"
                y="3"
                :width="Math.max(x(one.worst) - x(one.used), 0)"
                height="12"
                class="fill-track"
              />
              <rect
                x="2"
                y="8"
                :width="Math.max(x(one.used) - 2, 0)"
                height="7"
                :class="number(one.used) > number(one.worst) ? 'fill-out' : 'fill-part'"
              />
              <line :x1="x(one.low)" :x2="x(one.low)" y1="0" y2="18" class="stroke-ink" stroke-width="2" />
            </svg>
          </td>
          <td class="num text-right text-ink-soft">{{ shown(one.low) }}</td>
          <td class="num pl-2 text-right">{{ shown(one.worst) }}</td>
          <td
            class="num pl-2 text-right"
            :class="one.used !== null ? 'font-bold text-part' : 'text-ink-soft'"
          >
            {{
              one.used !== null ? shown(one.used) : one.no_clock ? 'no clock' : one.is_over ? 'none' : 'open'
            }}
          </td>
          <td v-if="labour" class="num pl-2 text-right">{{ money(one.worst_money) }}</td>
          <td class="num pl-2 text-right font-bold text-in">
            {{ number(one.off) > 0 ? `−${money(one.off)}` : '' }}
          </td>
        </tr>
        <tr class="border-t-2 border-ink font-bold">
          <th scope="row" class="py-2 text-left">{{ title.split(' ')[0] }}, agreed</th>
          <td></td>
          <td class="num text-right text-ink-soft">{{ shown(sum((one) => one.low)) }}</td>
          <td class="num pl-2 text-right">{{ shown(sum((one) => one.worst)) }}</td>
          <td class="num pl-2 text-right text-part">{{ shown(sum((one) => one.used)) }}</td>
          <td v-if="labour" class="num pl-2 text-right">{{ money(sum((one) => one.worst_money)) }}</td>
          <td class="num pl-2 text-right text-in">−{{ money(sum((one) => one.off)) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
