<script setup lang="ts">
import { computed } from 'vue'

import type { RunView } from '@/api/generated'
import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { depthAt } from './dial'

/** The ledge unrolled from 12 h to 12 h, filling pass by pass from where it stood to where the cut ends. */
const props = defineProps<{ run: RunView }>()
const WIDTH = 560
const LEFT = 66
const RIGHT = 332
const TOP = 44
const BOTTOM = 566
const top = computed(() => Math.min(props.run.start_m, ...props.run.ledge.map((one) => one.depth_m)))
const span = computed(() => Math.max(props.run.depth_m - top.value, 1e-5))
const y = (depth: number) => TOP + ((depth - top.value) / span.value) * (BOTTOM - TOP - 30)
const x = (hour: number) => LEFT + (hour / 12) * (RIGHT - LEFT)
const factor = computed(() => Math.round(((BOTTOM - TOP) / span.value) * 0.265e-3))
/** The present ledge, every half hour, with its pits. */
const before = computed(() =>
  Array.from({ length: 25 }, (_, at) => {
    const hour = at / 2
    return { hour, depth: depthAt(props.run.ledge, hour === 0 ? 12 : hour) }
  }),
)
const outline = computed(() => before.value.map((one) => `${x(one.hour)} ${y(one.depth)}`).join('L'))
const body = (from: number, to: number) => {
  const edge = before.value
    .map((one) => `${x(one.hour)} ${y(Math.min(Math.max(one.depth, from), to))}`)
    .join('L')
  return `M${edge}L${RIGHT} ${y(to)}H${LEFT}z`
}
const lines = computed(() => {
  const found: number[] = []
  for (let at = props.run.start_m; at < props.run.depth_m - 1e-9; at += props.run.graduation_m) found.push(at)
  return found.length > 70 ? [] : found.slice(1)
})
const pits = computed(() =>
  props.run.pits.map((one) => {
    const at = x(one.hour % 12)
    const from = depthAt(props.run.ledge, one.hour)
    return {
      key: one.hour,
      d: `M${at - 9} ${y(from)}C${at - 5} ${y(one.depth_m)} ${at + 5} ${y(one.depth_m)} ${at + 9} ${y(from)}`,
      x: at,
      y: y(one.depth_m),
      depth: one.depth_m,
    }
  }),
)
const notes = computed(() => {
  const { run } = props
  const at = (pass: number) => run.at_m + (pass - run.count) * run.graduation_m
  const rows: { y: number; pass: string; words: string; more: string; now?: boolean }[] = []
  if (run.state !== 'count is done' && run.of > run.count)
    rows.push({
      y: y(Math.min(run.depth_m, run.at_m + run.next_m)),
      pass: String(run.count + 1),
      words: 'turning',
      more: `stop at ${run.next_stop_hour} h`,
      now: true,
    })
  if (run.next_vacuum < run.of)
    rows.push({
      y: y(at(run.next_vacuum)),
      pass: String(run.next_vacuum),
      words: 'vacuum',
      more: 'lift the head, chips out',
    })
  if (run.measure_after !== null && run.measure_after > run.count)
    rows.push({
      y: y(Math.min(run.depth_m, at(run.measure_after))),
      pass: String(run.measure_after),
      words: 'stop and measure',
      more: `read four, ${exactSmall(run.depth_m - at(run.measure_after), unit.value)} ${unit.value} left`,
    })
  rows.push({
    y: y(run.depth_m),
    pass: String(run.of),
    words:
      run.part_pass_m > 0
        ? `part pass, ${exactSmall(run.part_pass_m, unit.value)} ${unit.value}`
        : 'last pass',
    more: run.measured_m === null ? 'set from that reading' : 'set from the reading',
  })
  let last = -Infinity
  return rows.map((row) => {
    const place = Math.max(row.y, last + 50)
    last = place
    return { ...row, place }
  })
})
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${WIDTH} 610`"
    class="block w-full"
    role="img"
    aria-label="Ledge unrolled, pass by pass"
  >
    <text x="0" y="18" font-size="16" class="fill-ink">
      <tspan font-weight="700">Ledge unrolled</tspan>
      <tspan class="fill-ink-soft">
        {{ ` depth from the deck in ${SIZE_WITH[unit]} · heights × ${factor}` }}
      </tspan>
    </text>
    <path :d="body(top, run.depth_m)" class="fill-act-wash" />
    <path v-if="run.count" :d="body(top, run.at_m)" class="fill-sheet" />
    <path
      v-if="run.next_m > 0 && run.of > run.count"
      :d="`M${LEFT} ${y(run.at_m)}H${RIGHT}V${y(run.at_m + run.next_m)}H${LEFT}z`"
      class="fill-act"
    />
    <path :d="`M${LEFT} ${y(run.depth_m)}H${RIGHT}V${BOTTOM}H${LEFT}z`" class="fill-iron" />
    <path
      v-for="line in lines"
      :key="line"
      :d="`M${LEFT} ${y(line)}H${RIGHT}`"
      :class="line <= run.at_m + 1e-9 ? 'stroke-part' : 'stroke-rule'"
      :stroke-dasharray="line <= run.at_m + 1e-9 ? undefined : '2 5'"
      stroke-width="1.2"
    />
    <path :d="`M${outline}`" class="fill-none stroke-part" stroke-width="2.2" stroke-dasharray="5 4" />
    <g v-for="pit in pits" :key="pit.key">
      <path :d="pit.d" class="fill-paper stroke-ink" stroke-width="2.2" />
      <text
        :x="pit.x"
        :y="pit.y + 20"
        text-anchor="middle"
        font-size="14"
        class="fill-part stroke-paper"
        stroke-width="4"
        paint-order="stroke"
      >
        pit {{ size(pit.depth) }}
      </text>
    </g>
    <path :d="`M${LEFT} ${y(run.at_m)}H${RIGHT}`" class="stroke-ink" stroke-width="2.6" />
    <path :d="`M${LEFT - 6} ${y(run.depth_m)}H${RIGHT + 6}`" class="stroke-ink" stroke-width="2.6" />
    <g class="font-mono" text-anchor="end" font-size="14.5">
      <text :x="LEFT - 8" :y="y(top) + 5" class="fill-ink-soft">{{ size(top) }}</text>
      <text
        v-if="run.count"
        :x="LEFT - 8"
        :y="Math.max(y(run.at_m), y(top) + 18) + 5"
        class="fill-ink font-bold"
      >
        {{ size(run.at_m) }}
      </text>
      <text :x="LEFT - 8" :y="y(run.depth_m) + 5" class="fill-ink font-bold">{{ size(run.depth_m) }}</text>
    </g>
    <g v-for="note in notes" :key="`${note.pass}${note.words}`">
      <path
        :d="`M${RIGHT + 4} ${note.y}H${RIGHT + 18}L${RIGHT + 32} ${note.place}H${RIGHT + 40}`"
        class="fill-none"
        :class="note.now ? 'stroke-act' : 'stroke-ink-soft'"
        :stroke-width="note.now ? 2.4 : 1"
      />
      <text
        :x="RIGHT + 72"
        :y="note.place + 6"
        text-anchor="end"
        font-size="19"
        font-weight="700"
        :class="note.now ? 'fill-act' : 'fill-ink'"
      >
        {{ note.pass }}
      </text>
      <text
        :x="RIGHT + 82"
        :y="note.place + 3"
        font-size="16"
        font-weight="700"
        :class="note.now ? 'fill-act' : 'fill-ink'"
      >
        {{ note.words }}
      </text>
      <text :x="RIGHT + 82" :y="note.place + 21" font-size="13.5" class="fill-ink-soft">{{ note.more }}</text>
    </g>
    <g font-size="14" text-anchor="middle" class="fill-ink-soft">
      <text v-for="hour in [0, 3, 6, 9, 12]" :key="hour" :x="x(hour)" y="588">
        {{ hour === 0 ? 12 : hour }} h
      </text>
    </g>
  </svg>
</template>
