<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Operation, RouteView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'

import { arcsOf, type Column, columnsOf, forksOf, holdsOf, holdState } from './drawing'
import { marksOf, standsAt, ticksOf, WIDE } from './drawing'

/** Operations along the rule, the marks of every hole under each, arcs to what they re-open, forks, hold points. */
const props = defineProps<{ route: RouteView; holes: number[]; at: Operation | null }>()
const emit = defineEmits<{ choose: [operation: Operation] }>()

const together = ref(true)
const columns = computed(() => columnsOf(props.route.operations, together.value))
const arcs = computed(() => arcsOf(columns.value, props.route.arcs, 0))
const high = computed(() => Math.max(30, ...arcs.value.map((arc) => 14 - arc.label.y)))
const titles = computed(() => Math.max(...columns.value.map((column) => column.title.length)))
/** Heights of the bands from the top: arcs, titles, rule, forks, rows. */
const rule = computed(() => high.value + 30 + titles.value * 17)
const forks = computed(() => forksOf(columns.value, props.route.schools))
const rows = computed(() => rule.value + 14 + (forks.value.length ? 20 * levels.value : 0))
const levels = computed(() => 1 + Math.max(0, ...forks.value.map((fork) => fork.level)))
const ROW = 28
const names = computed(() => [...props.holes.map((hole) => `hole ${hole}`), 'block'])
const bottom = computed(() => rows.value + names.value.length * ROW + 4)
const holds = computed(() => holdsOf(columns.value, props.route.holds))

const marks = computed(() => columns.value.flatMap((column) => marksOf(column, props.holes)))
const now = computed(() => standsAt(columns.value, props.route.next, props.holes))
function pick(column: Column): void {
  if (column.operations.length > 1) together.value = false
  else if (column.operations[0]) emit('choose', column.operations[0].operation)
}
const doneTo = computed(() => {
  const open = columns.value.find((column) => column.operations.some((one) => !one.is_done))
  return open?.x ?? WIDE - 8
})
</script>

<template>
  <div class="relative overflow-x-auto">
    <svg
      v-legible
      :viewBox="`0 0 ${WIDE} ${bottom + 22}`"
      class="min-w-[900px]"
      role="group"
      aria-label="Route, drawn"
    >
      <text x="0" :y="high - 8" font-size="14" class="fill-ink-soft">re-opens</text>
      <g :transform="`translate(0 ${high})`">
        <g v-for="arc in arcs" :key="arc.key" :class="arc.open ? 'text-unsure' : 'text-part'">
          <path :d="arc.path" fill="none" stroke="currentColor" :stroke-width="arc.open ? 2.4 : 1.4" />
          <path d="M-6-9H6L0 0z" fill="currentColor" :transform="`translate(${arc.tip.x} ${arc.tip.y})`" />
          <text
            :x="arc.label.x"
            :y="arc.label.y"
            text-anchor="middle"
            font-size="14"
            :font-weight="arc.open ? 700 : 400"
            fill="currentColor"
            stroke="var(--color-paper)"
            stroke-width="5"
            paint-order="stroke"
          >
            {{ arc.label.text }}
          </text>
        </g>
      </g>
      <line x1="66" :x2="WIDE - 8" :y1="rule" :y2="rule" class="stroke-ink" stroke-width="1.6" />
      <rect x="66" :y="rule - 1" :width="Math.max(0, doneTo - 66)" height="7" class="fill-ink" />
      <text x="0" :y="rule - 2" font-size="14" class="fill-ink-soft">hours</text>
      <g v-for="(name, row) in names" :key="name">
        <line x1="0" :x2="WIDE" :y1="rows + row * ROW" :y2="rows + row * ROW" class="stroke-rule" />
        <text
          x="0"
          :y="rows + row * ROW + 20"
          font-size="15"
          :font-weight="row < holes.length ? 700 : 400"
          :class="row < holes.length ? 'fill-ink' : 'fill-ink-soft'"
        >
          {{ name }}
        </text>
      </g>
      <rect
        v-if="now"
        :x="now.column.x + 1"
        :y="rows + now.row * ROW + 2"
        :width="now.column.width - 3"
        :height="ROW - 4"
        rx="3"
        class="fill-act-wash stroke-act"
        stroke-width="1.6"
      />
      <g
        v-for="column in columns"
        :key="column.key"
        class="cursor-pointer"
        role="button"
        tabindex="0"
        :aria-label="
          column.operations.length > 1
            ? 'Show what is done'
            : `${column.operations[0]?.title}: ${column.operations[0]?.evidence.words}`
        "
        :aria-pressed="column.key === at"
        @click="pick(column)"
        @keydown.enter="pick(column)"
        @keydown.space.prevent="pick(column)"
      >
        <rect
          :x="column.x"
          :y="high + 4"
          :width="column.width"
          :height="rule - high - 4"
          :class="column.key === at ? 'fill-part-wash' : 'fill-paper'"
          fill-opacity="0.9"
        />
        <text
          v-for="(line, index) in column.title"
          :key="index"
          :x="column.x + 4"
          :y="rule - 28 - (column.title.length - index - 1) * 17"
          font-size="14.5"
          font-weight="700"
          :class="
            column.key === route.next
              ? 'fill-act'
              : column.operations.every((one) => one.is_done)
                ? 'fill-ink-soft'
                : 'fill-ink'
          "
        >
          {{ line }}
        </text>
        <text :x="column.x + 4" :y="rule - 11" font-size="13" class="num fill-ink-soft">
          {{ column.words }}
        </text>
        <line
          v-for="tick in ticksOf(column)"
          :key="tick.x"
          :x1="tick.x"
          :x2="tick.x"
          :y1="rule"
          :y2="rule - tick.high"
          class="stroke-ink"
        />
      </g>
      <g v-for="fork in forks" :key="fork.key" class="text-ink-soft">
        <path
          :d="`M${fork.left} ${rule + 6}v${8 + fork.level * 20}H${fork.right}v-${8 + fork.level * 20}`"
          fill="none"
          stroke="currentColor"
          stroke-dasharray="4 3"
        />
        <text
          :x="(fork.left + fork.right) / 2"
          :y="rule + 27 + fork.level * 20"
          text-anchor="middle"
          font-size="13.5"
          fill="currentColor"
          stroke="var(--color-paper)"
          stroke-width="5"
          paint-order="stroke"
        >
          {{ fork.text }}
        </text>
      </g>
      <g v-for="hold in holds" :key="hold.number" :aria-label="hold.hold.words">
        <line
          :x1="hold.x"
          :x2="hold.x"
          :y1="rule - 4"
          :y2="bottom"
          :class="holdState(hold) === 'clear' ? 'stroke-rule' : 'stroke-ink'"
          stroke-width="2.5"
        />
        <rect
          :x="hold.x - 9.5 + hold.beside * 20"
          :y="bottom"
          width="19"
          height="19"
          :class="holdState(hold) === 'clear' ? 'fill-ink-soft' : 'fill-ink'"
        />
        <text
          :x="hold.x + hold.beside * 20"
          :y="bottom + 15"
          text-anchor="middle"
          font-size="14"
          font-weight="700"
          class="fill-paper"
        >
          {{ hold.number }}
        </text>
      </g>
      <g v-for="(mark, index) in marks" :key="index">
        <title>{{ mark.words }}</title>
        <StateGate :state="mark.state" :x="mark.x + 8" :y="rows + mark.row * ROW + 7" />
        <text
          v-if="mark.told"
          :x="mark.x + 40"
          :y="rows + mark.row * ROW + 20"
          font-size="13"
          class="fill-ink-soft"
        >
          read again
        </text>
      </g>
    </svg>
  </div>
</template>
