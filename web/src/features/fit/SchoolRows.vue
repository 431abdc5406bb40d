<script setup lang="ts">
import type { FitView, SchoolOfFitView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { forceText, shareText, stressText } from './fit'

/** The schools side by side on the same readings. */
const props = defineProps<{ fit: FitView }>()
const small = (metres: number) => lengthText(metres, unit.value, { signed: true })
const greatest = (one: SchoolOfFitView) => Math.max(...one.effects.map((effect) => effect.close_in.value_m))
const hoop = (one: SchoolOfFitView) => Math.min(...one.effects.map((effect) => effect.hoop_liner_pa))
const borne = (one: SchoolOfFitView) =>
  Math.round(100 * Math.max(...one.effects.flatMap((effect) => [effect.liner_share, effect.block_share])))
const share = (depth: number) => (props.fit.length_m ? shareText(depth / props.fit.length_m) : '–')
const deep = (depth: number) =>
  lengthText(depth, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 2 : 0 })
const WORDS: Record<string, string> = { light: ', once sized', firm: ', once sized' }
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Schools of fit side by side">
    <table class="w-full border-collapse text-[0.95rem]">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 text-left font-normal">school</th>
          <th scope="col" class="px-2 text-right font-normal">press, {{ unit }}</th>
          <th scope="col" class="px-2 text-right font-normal">starts by hand, {{ SIZE_WITH[unit] }}</th>
          <th scope="col" class="px-2 text-right font-normal">greatest pull, kN</th>
          <th scope="col" class="px-2 text-right font-normal">closes in, {{ unit }}</th>
          <th scope="col" class="px-2 text-right font-normal">hoop, MPa</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="one in fit.schools"
          :key="one.name"
          class="border-b border-rule"
          :class="one.name === 'as it is' && 'text-part'"
        >
          <th scope="row" class="py-1.5 text-left font-normal">
            <b>{{ one.name }}</b>{{ WORDS[one.name] ?? '' }}
          </th>
          <td class="num px-2 text-right">
            {{ small(one.least_m) }} to {{ small(one.greatest_m) }}
            <span v-if="one.too_big_m > 2e-6" class="block text-xs text-unsure">
              hole too big for it by {{ lengthText(one.too_big_m, unit) }}
            </span>
          </td>
          <td class="num px-2 text-right">
            <template v-if="one.going_in">
              {{ deep(one.going_in.by_hand_m.middle) }}, {{ share(one.going_in.by_hand_m.middle) }}
            </template>
            <template v-else>–</template>
          </td>
          <td class="num px-2 text-right">
            <template v-if="one.going_in">
              <b>{{ forceText(one.going_in.greatest_n.middle) }}</b>
              <span class="text-sm text-ink-soft">
                ({{ forceText(one.going_in.greatest_n.low) }}–{{ forceText(one.going_in.greatest_n.high) }})
              </span>
            </template>
            <template v-else>–</template>
          </td>
          <td class="num px-2 text-right">{{ lengthText(greatest(one), unit) }}</td>
          <td class="num px-2 text-right" :title="`${borne(one)} % of what the weaker wall bears`">
            {{ stressText(hoop(one)) }} <span class="text-sm text-ink-soft">{{ borne(one) }} %</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
