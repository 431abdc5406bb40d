<script setup lang="ts">
import { computed } from 'vue'

import type { HoneView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import StateGate from '@/shared/charts/StateGate.vue'

import { leftNow } from './chart'
import { minuteText } from './words'

/** What is left, huge; when to stop and measure; the rate behind it; level by level what was read. */
const props = defineProps<{ view: HoneView; strokes: number; warmM: number | null }>()
const small = (metres: number) => lengthText(metres, unit.value)
const now = computed(() => leftNow(props.view, props.strokes))
const pace = computed(() => props.view.setting?.strokes ?? 0)
const more = computed(() => Math.max(0, props.view.stop - props.strokes))
const over = computed(() => Math.max(0, props.strokes - props.view.stop))
/** What the gauge shows, set on the finished size: what is left, as warm as the bore is. */
const shows = computed(() => (now.value ? (props.warmM ?? 0) - now.value.left : null))
/** What even the fast edge leaves at the stop. */
const leaves = computed(() => props.view.ahead[0]?.fast_m ?? null)
const rate = computed(() => {
  const one = props.view.rate
  if (!one) return null
  const within = one.within_m === null ? '' : ` ±${uncertaintyText(one.within_m * pace.value, unit.value)}`
  return `${small(one.per_stroke_m * pace.value)}${within} ${unit.value} a minute`
})
const VERDICTS: Partial<Record<HoneView['state'], string>> = {
  done: 'in: it fits its part',
  'too large': 'too large',
  'cannot tell': 'cannot tell',
}
const verdict = computed(() => VERDICTS[props.view.state] ?? '')
const turns = computed(() => props.view.state === 'running')
</script>

<template>
  <div>
    <p class="text-lg text-ink-soft">left on the diameter</p>
    <p v-if="now" class="flex items-end gap-4" role="status" aria-label="Left to take">
      <span class="num text-[6.5rem] leading-[0.9] font-bold lg:text-[8.4rem]">{{ small(now.left) }}</span>
      <span class="pb-2 text-2xl text-ink-soft"
        >{{ unit
        }}<b class="num block text-[1.7rem] text-ink">±{{ uncertaintyText(now.within, unit) }}</b></span
      >
    </p>
    <p v-if="now && shows !== null" class="text-ink-soft">
      {{ small(now.left / 2) }} a side · a gauge set on it will show
      <b class="num text-ink">{{ lengthText(shows, unit, { signed: true }) }}</b>
    </p>

    <p v-if="verdict" class="mt-2 flex items-center gap-3 border-t-2 border-rule pt-2 text-3xl font-bold">
      <StateGate :state="view.state === 'done' ? 'in' : view.state === 'too large' ? 'out' : 'cannot tell'" />
      {{ verdict }}
    </p>
    <div v-else-if="view.stage" class="mt-2 border-t-2 border-rule pt-2">
      <p class="text-xl">{{ turns ? 'Stop and measure in' : 'Next round' }}</p>
      <p class="flex items-end gap-4">
        <b
          class="num text-[4.2rem] leading-none"
          :class="over > 0 ? 'text-out' : 'text-act'"
          role="timer"
          aria-label="To the stop"
          >{{ minuteText(((turns ? (over > 0 ? over : more) : view.stop) / Math.max(1, pace)) * 60) }}</b
        >
        <span class="pb-1"
          ><b class="num text-2xl">{{ over > 0 ? over : turns ? more : view.stop }}</b> double<span
            class="block text-ink-soft"
            >{{ over > 0 ? 'strokes over: stop' : turns ? 'strokes more' : 'strokes' }}</span
          ></span
        >
      </p>
      <p class="text-ink-soft">
        <template v-if="view.rate === null || view.rate.within_m === null"
          >rate not learned: measure after {{ view.stop }} strokes</template
        >
        <template v-else-if="leaves !== null"
          >so that even the fast edge leaves <b class="num text-ink">{{ small(leaves) }}</b></template
        >
        <template v-else>then it is read</template>
      </p>
    </div>

    <dl class="mt-2 grid grid-cols-[auto_minmax(0,1fr)] gap-x-5 gap-y-1 border-t-2 border-rule pt-2">
      <template v-if="rate">
        <dt class="text-ink-soft">rate</dt>
        <dd>
          <b>{{ rate }}</b>
          <span class="block text-sm text-ink-soft"
            >from {{ view.rate?.rounds }} round{{ view.rate?.rounds === 1 ? '' : 's' }},
            {{ view.setting?.method }}, these stones</span
          >
        </dd>
      </template>
      <template v-if="view.target">
        <dt class="text-ink-soft">zero</dt>
        <dd>
          <b>set on {{ lengthText(view.target.finished.value_m, SIZE_WITH[unit]) }}: shows what is left</b>
          <span v-if="warmM !== null" class="block text-sm text-ink-soft"
            >done when it shows {{ lengthText(warmM, unit, { signed: true }) }}, warm as it is</span
          >
        </dd>
      </template>
    </dl>
    <table v-if="view.levels.length" class="mt-2 w-full border-t-2 border-rule text-left">
      <caption class="sr-only">
        Read last, left to take
      </caption>
      <tbody>
        <tr v-for="one in view.levels" :key="one.name">
          <th scope="row" class="pr-3 font-normal">{{ one.name }}</th>
          <td class="num text-right font-bold">{{ small(one.left.value_m) }}</td>
          <td class="num pl-2 text-ink-soft">±{{ uncertaintyText(one.left.expanded_m, unit) }}</td>
          <td v-if="verdict" class="pl-3"><StateGate :state="one.state" /></td>
          <td class="pl-2 text-sm">
            {{ view.stage && one.more_strokes >= 2 ? `tight: ${one.more_strokes} short strokes more` : '' }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
