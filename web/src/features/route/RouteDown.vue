<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Operation, RouteView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'

import { arcWords, type Column, columnsOf, forkWords, holdsOf, holdState, marksOf, standsAt } from './drawing'

/** The route on a narrow screen: the rule runs down, an operation each step, the marks of every hole beside it. */
const props = defineProps<{ route: RouteView; holes: number[]; at: Operation | null }>()
const emit = defineEmits<{ choose: [operation: Operation] }>()

const together = ref(true)
const columns = computed(() => columnsOf(props.route.operations, together.value))
const holds = computed(() => holdsOf(columns.value, props.route.holds))
const now = computed(() => standsAt(columns.value, props.route.next, props.holes))
const steps = computed(() =>
  columns.value.map((column) => {
    const operations = column.operations.map((one) => one.operation)
    const ticks = column.operations.length > 1 ? 1 : Math.max(1, Math.round(column.hours * 4))
    return {
      column,
      title: column.title.join(' '),
      marks: marksOf(column, props.holes),
      holds: holds.value.filter((one) => operations.includes(one.hold.before)),
      arcs: props.route.arcs
        .filter((arc) => operations.includes(arc.disturbing) && !operations.includes(arc.disturbed))
        .map((arc) => ({ words: arcWords(arc, columns.value), open: arc.is_open })),
      forks: forkWords(props.route.schools, operations),
      done: column.operations.every((one) => one.is_done),
      ticks: Array.from({ length: ticks }, (_, at) => ({
        at: at / ticks,
        long: at === 0 ? 14 : at % 4 ? 5 : 9,
      })),
    }
  }),
)
function pick(column: Column): void {
  if (column.operations.length > 1) together.value = false
  else if (column.operations[0]) emit('choose', column.operations[0].operation)
}
const place = (row: number) => (row < props.holes.length ? String(props.holes[row]) : '')
</script>

<template>
  <ol aria-label="Route, drawn">
    <li v-for="step in steps" :key="step.column.key" class="grid grid-cols-[1.6rem_minmax(0,1fr)]">
      <div
        class="relative border-l-[3px]"
        :class="step.done ? 'border-ink bg-ink/10' : 'border-ink-soft'"
        aria-hidden="true"
      >
        <span
          v-for="tick in step.ticks"
          :key="tick.at"
          class="absolute left-0 border-t border-ink"
          :style="{ top: `${tick.at * 100}%`, width: `${tick.long}px` }"
        />
      </div>
      <div class="min-w-0 border-b border-rule pb-1">
        <p v-for="one in step.holds" :key="one.number" class="flex items-center gap-2 pt-1 text-sm">
          <b
            class="grid size-5 shrink-0 place-items-center text-paper"
            :class="holdState(one) === 'clear' ? 'bg-ink-soft' : 'bg-ink'"
            >{{ one.number }}</b
          >
          <span class="min-w-0">{{ one.hold.words }}</span>
        </p>
        <button
          type="button"
          class="flex min-h-11 w-full items-baseline justify-between gap-3 px-1 text-left"
          :class="step.column.key === at && 'bg-part-wash'"
          :aria-pressed="step.column.key === at"
          @click="pick(step.column)"
        >
          <b :class="step.column.key === route.next ? 'text-act' : step.done ? 'text-ink-soft' : ''">{{
            step.title
          }}</b>
          <span class="num shrink-0 text-sm text-ink-soft">{{ step.column.words }}</span>
        </button>
        <ul class="flex flex-wrap gap-x-2 gap-y-1 px-1" :aria-label="`Marks of ${step.title}`">
          <li
            v-for="mark in step.marks"
            :key="mark.row"
            class="flex items-center gap-1 rounded px-1 text-sm"
            :class="
              now?.column === step.column && now.row === mark.row
                ? 'bg-act-wash outline-2 outline-act'
                : 'text-ink-soft'
            "
          >
            <b class="num">{{ place(mark.row) }}</b>
            <StateGate :state="mark.state" />
            <span class="sr-only">{{ mark.words }}</span>
          </li>
        </ul>
        <p
          v-for="arc in step.arcs"
          :key="arc.words"
          class="px-1 text-sm"
          :class="arc.open ? 'font-bold text-unsure' : 'text-part'"
        >
          re-opens {{ arc.words }}
        </p>
        <p v-for="words in step.forks" :key="words" class="px-1 text-sm text-ink-soft">{{ words }}</p>
      </div>
    </li>
  </ol>
</template>
