<script setup lang="ts">
import { computed } from 'vue'

import type { MainView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

import { BAND, endsOf, marksOf, MIDDLE } from './picture'

/** One main bore: its directions across the ring of its limits, far enlarged; what was read before stays, hollow. */
const props = defineProps<{ main: MainView }>()
const marks = computed(() => marksOf(props.main))
const TONE: Record<string, string> = { small: 'stroke-out', big: 'stroke-out', in: 'stroke-in', none: '' }
const WORD: Record<string, string> = {
  'cannot tell': 'text-unsure',
  'read again': 'text-unsure',
  in: 'text-in',
}
const tone = computed(() => WORD[props.main.lies] ?? (props.main.lies === 'not measured' ? '' : 'text-out'))
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const small = (metres: number) => lengthText(metres, unit.value, { signed: true })
const name = (axis: number) => (axis === 90 ? 'upright' : `${axis}°`)
const label = computed(() =>
  props.main.directions
    .map((one) => `${name(one.axis_deg)} ${one.now ? size(one.now.value_m) : 'not read'}`)
    .join(', '),
)
</script>

<template>
  <section class="min-w-0" :aria-label="main.title">
    <h2 class="flex items-baseline gap-2 text-lg">
      {{ main.title.replace('main bore', 'Main') }} <b :class="tone">{{ main.lies }}</b>
    </h2>
    <svg v-legible viewBox="0 0 200 200" class="mx-auto max-h-56 w-full" role="img" :aria-label="label">
      <path d="M4 100H40M160 100H196" class="stroke-ink-soft" stroke-width="2" stroke-dasharray="5 4" />
      <circle
        :cx="MIDDLE"
        :cy="MIDDLE"
        :r="BAND.middle"
        class="fill-none stroke-track"
        :stroke-width="BAND.outer - BAND.inner"
      />
      <g v-for="mark in marks" :key="mark.axis">
        <template v-if="mark.before !== null">
          <circle
            v-for="([x, y], at) in endsOf(mark.axis, mark.before)"
            :key="at"
            :cx="x"
            :cy="y"
            r="6"
            class="fill-none stroke-ink-soft"
            stroke-width="2"
          />
        </template>
        <template v-if="mark.now !== null">
          <path
            :d="`M${endsOf(mark.axis, mark.now)
              .map((end) => end.join(' '))
              .join('L')}`"
            :class="TONE[mark.state]"
            stroke-width="1.5"
          />
          <circle
            v-for="([x, y], at) in endsOf(mark.axis, mark.now)"
            :key="at"
            :cx="x"
            :cy="y"
            r="5"
            :class="[mark.state === 'in' ? 'fill-in' : 'fill-out']"
          />
        </template>
      </g>
    </svg>
    <table class="w-full text-left">
      <thead class="text-sm text-ink-soft">
        <tr>
          <th scope="col" class="font-normal">direction</th>
          <th scope="col" class="text-right font-normal">{{ SIZE_WITH[unit] }}</th>
          <th scope="col" class="text-right font-normal">since before, {{ unit }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in main.directions" :key="one.axis_deg" class="border-t border-rule">
          <th scope="row" class="py-1 font-normal">{{ name(one.axis_deg) }}</th>
          <td class="num text-right text-lg">{{ one.now ? size(one.now.value_m) : '–' }}</td>
          <td class="num text-right" :class="one.has_moved && 'font-bold text-unsure'">
            <template v-if="one.change"
              >{{ small(one.change.value_m) }} ±{{ uncertaintyText(one.change.expanded_m, unit) }}</template
            ><template v-else>–</template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="main.says" class="mt-1 font-bold"><PhraseText :phrase="main.says" /></p>
    <RouterLink
      class="link text-sm"
      :to="{ name: 'survey', params: { quantity: 'main-bore', part: main.part } }"
      >Read it</RouterLink
    >
  </section>
</template>
