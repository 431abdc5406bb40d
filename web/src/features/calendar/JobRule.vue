<script setup lang="ts">
import { computed } from 'vue'

import type { CalendarJobView } from '@/api/generated'

import { type Axis, dayOf, placeLabels } from './axis'
import MachineNotch from './MachineNotch.vue'
import { dayWords, holesWords } from './words'

/** One job as a steel rule along the days: ticks where work is, blank steel where it waits, the hole at its end. */
const props = defineProps<{
  job: CalendarJobView
  axis: Axis
  y: number
  now: string
  letters: Map<string, string>
}>()
const HEIGHT = 20
/** About how wide a letter of a label is. */
const LETTER = 6.6
interface Piece {
  x: number
  width: number
  title: string
  machine: CalendarJobView['bars'][number]['machine']
  person: string
  tone: string
  pinned: boolean
}
const inside = (start: string, end: string) => props.axis.holds(start) || props.axis.holds(end)
const pieces = computed<Piece[]>(() => {
  const done = props.job.worked
    .filter((one) => inside(one.start, one.end))
    .map((one) => ({
      ...one,
      title: one.title.toLowerCase(),
      machine: null,
      tone: 'text-ink-soft',
      pinned: false,
    }))
  const ahead = props.job.bars
    .filter((one) => inside(one.start, one.end))
    .map((one) => ({
      ...one,
      title: `${one.short}${holesWords(one.holes, props.job.holes)}`,
      tone: dayOf(one.start) === dayOf(props.now) ? 'text-part' : 'text-ink',
    }))
  return [...done, ...ahead].map((one) => {
    const x = props.axis.x(one.start)
    return { ...one, x, width: Math.max(props.axis.x(one.end) - x, 3) }
  })
})
const from = computed(() => Math.min(...pieces.value.map((one) => one.x), props.axis.x(props.now)) - 3)
const end = computed(() => (props.job.ready ? props.axis.x(props.job.ready) : from.value) + 22)
const goesOn = computed(() => props.job.ready !== null && !props.axis.holds(props.job.ready))
const outline = computed(() => {
  const [top, right] = [props.y, Math.min(end.value, props.axis.right)]
  if (goesOn.value) return `M${right},${top}H${from.value}V${top + HEIGHT}H${right}`
  const r = HEIGHT / 2
  return `M${from.value},${top}H${right - r}a${r},${r} 0 0 1 0,${HEIGHT}H${from.value}z`
})
const ticks = computed(() =>
  pieces.value.flatMap((one) => {
    const count = Math.max(1, Math.round(one.width / 9))
    return Array.from({ length: count + 1 }, (_, at) => ({
      x: one.x + (one.width * at) / count,
      tone: one.tone,
    }))
  }),
)
const labels = computed(() =>
  placeLabels(
    pieces.value.map((one) => ({ text: one.title, x: one.x, tone: one.tone })),
    LETTER,
  ),
)
const hands = computed(() =>
  placeLabels(
    pieces.value
      .filter((one) => one.person)
      .map((one) => ({
        text: props.letters.get(one.person) ?? one.person.slice(0, 2),
        x: one.x + one.width / 2 + (one.machine ? 10 : -3),
        tone: one.tone,
      })),
    7,
    1,
  ),
)
/** What it waits for, written on the blank steel until the day on which it is expected. */
const waits = computed(() =>
  props.job.waits
    .filter((one) => one.ended === null)
    .map((one) => {
      const until = one.expected ?? null
      const begins = one.since > props.now ? one.since : props.now
      const a = Math.max(props.axis.x(begins), from.value)
      const b = until ? props.axis.x(until) : Math.min(end.value - 20, props.axis.right)
      const moved = one.first_expected !== null && until !== null && until > one.first_expected
      const late = moved ? `due ${dayWords(one.first_expected)}, comes ${dayWords(until)}` : ''
      return { key: one.wait_id, a, b, words: one.words, late }
    })
    .filter((one) => one.b - one.a > 30)
    .sort((one, other) => other.b - other.a - (one.b - one.a))
    // Two waits of one time cannot both be read on the steel: the longer stands there, both in words below.
    .filter((one, at, all) => !all.slice(0, at).some((longer) => one.a < longer.b && longer.a < one.b)),
)
const fits = (words: string, width: number) => {
  const most = Math.floor((width - 8) / LETTER)
  return words.length <= most ? words : most > 6 ? `${words.slice(0, most - 1)}…` : ''
}
const late = computed(() => {
  if (props.job.holds !== false || !props.job.promised || !props.job.ready) return null
  const a = props.axis.x(`${props.job.promised}T17:00`)
  const b = props.axis.x(props.job.ready) + 10
  const days = props.job.late_days
  return { a, b, words: `${days} open day${days === 1 ? '' : 's'} after its promise` }
})
</script>

<template>
  <g>
    <path :d="outline" class="fill-sheet stroke-ink" stroke-width="1.6" />
    <template v-for="one in waits" :key="one.key">
      <rect :x="one.a" :y="y + 2" :width="one.b - one.a" :height="HEIGHT - 6" fill="var(--color-act-wash)" />
      <text
        :x="(one.a + one.b) / 2"
        :y="y + 14"
        text-anchor="middle"
        class="fill-unsure text-[13px]"
        :class="one.late && 'fill-out font-bold'"
      >
        {{ fits(one.late || one.words, one.b - one.a) }}
      </text>
    </template>
    <line
      v-for="(tick, at) in ticks"
      :key="at"
      :x1="tick.x"
      :x2="tick.x"
      :y1="y"
      :y2="y + 8"
      :class="tick.tone"
      stroke="currentColor"
    />
    <g v-for="(one, at) in pieces" :key="`p${at}`" :class="one.tone">
      <MachineNotch :machine="one.machine" :x="one.x" :width="one.width" :y="y + HEIGHT" />
      <circle v-if="one.pinned" :cx="one.x + 3" :cy="y + 14" r="3.5" fill="currentColor" />
    </g>
    <g v-for="(one, at) in labels" :key="`l${at}`" :class="one.tone">
      <line
        v-if="one.level > 0"
        :x1="one.x + 1"
        :x2="one.x + 1"
        :y1="y - 3"
        :y2="y - 17"
        stroke="currentColor"
        opacity="0.5"
      />
      <text :x="one.from" :y="y - 5 - 15 * one.level" class="text-[13px]" fill="currentColor">{{
        one.text
      }}</text>
    </g>
    <text
      v-for="(one, at) in hands"
      :key="`h${at}`"
      :x="one.x"
      :y="y + HEIGHT + 13"
      class="text-[13px] font-bold"
      :class="one.tone"
      fill="currentColor"
    >
      {{ one.text }}
    </text>
    <circle
      v-if="job.ready && !goesOn"
      :cx="end - HEIGHT / 2"
      :cy="y + HEIGHT / 2"
      r="5"
      class="fill-paper stroke-ink"
      stroke-width="1.6"
    />
    <g v-if="late" class="text-out">
      <circle
        :cx="late.a"
        :cy="y + HEIGHT / 2"
        r="6"
        fill="none"
        stroke="currentColor"
        stroke-width="2"
        stroke-dasharray="3 2"
      />
      <path
        :d="`M${late.a},${y + HEIGHT + 2}v12H${late.b}v-8`"
        fill="none"
        stroke="currentColor"
        stroke-width="2"
      />
      <text
        :x="late.b > axis.right - 200 ? late.a - 10 : late.b + 8"
        :text-anchor="late.b > axis.right - 200 ? 'end' : 'start'"
        :y="y + HEIGHT + 14"
        class="text-[13px] font-bold"
        fill="currentColor"
      >
        {{ late.words }}
      </text>
    </g>
  </g>
</template>
