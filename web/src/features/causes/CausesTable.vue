<script setup lang="ts">
import { computed } from 'vue'

import type { CausesView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { holesText, nameOf, share } from './words'

/** Causes by weight, how each shows and where, and what the weights would be after the proposed check. */
const props = defineProps<{ view: CausesView }>()
const SHOWN = 6
const digits = computed(() => (unit.value === 'thou' ? 1 : 0))
const small = (metres: number) => lengthText(metres, unit.value, { digits: digits.value, signed: true })
const rows = computed(() =>
  props.view.explained.slice(0, SHOWN).map((one, at) => ({
    one,
    found: props.view.proposed?.if_found[at] ?? null,
    not: props.view.proposed?.if_not[at] ?? null,
  })),
)
const effects = (at: number) => {
  const one = rows.value[at]?.one
  return one
    ? one.causes.map((_, k) => `${small(one.effects_m[k] ?? 0)} ${holesText(one.where[k] ?? [])}`).join(', ')
    : ''
}
</script>

<template>
  <div class="overflow-x-auto">
    <table class="w-full text-left" aria-label="What may be behind it">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b-2 border-ink">
          <th scope="col" class="py-1 font-normal">cause, how it shows</th>
          <th scope="col" class="w-48 font-normal">how likely now, of 1</th>
          <th v-if="view.proposed" scope="col" class="w-40 font-normal">
            if it reads <b class="num">{{ small(view.proposed.expected_m) }}</b>
          </th>
          <th v-if="view.proposed" scope="col" class="w-40 font-normal">if it reads <b class="num">0</b></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, at) in rows" :key="nameOf(row.one) + effects(at)" class="border-b border-rule">
          <th scope="row" class="py-1 leading-tight">
            {{ nameOf(row.one) }}
            <span class="block text-sm font-normal text-ink-soft"
              >{{ row.one.shows
              }}<template v-if="effects(at).trim() && row.one.causes[0] !== 'nothing but scatter'"
                >, <span class="num">{{ effects(at) }}</span> {{ unit }}</template
              ></span
            >
          </th>
          <td
            v-for="(weight, column) in [row.one.weight, ...(view.proposed ? [row.found, row.not] : [])]"
            :key="column"
          >
            <span v-if="weight !== null" class="flex items-center gap-2"
              ><span
                aria-hidden="true"
                class="h-4 border-l border-ink"
                :class="column === 0 ? 'bg-ink' : 'bg-part'"
                :style="`width: ${Math.round(weight * 90)}px`"
              ></span
              ><span class="num" :class="column === 0 ? 'font-bold' : ''">{{ share(weight) }}</span></span
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
