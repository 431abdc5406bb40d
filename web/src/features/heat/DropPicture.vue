<script setup lang="ts">
import { computed } from 'vue'

import type { DropView, WindowView } from '@/api/generated'

import { FRAME } from './chart'
import { SHORT_STEPS } from './dropWords'
import WindowPicture from './WindowPicture.vue'

/** The window as it stands now, with the moment it is, and the run sheet on the same seconds under it. */
const props = defineProps<{ drop: DropView; window: WindowView; elapsed: number }>()
const enter = computed(() => props.drop.entered_s ?? props.drop.sheet.at(-1)?.due_s ?? props.drop.enter_s)
const home = computed(() => props.drop.home_s_after_out ?? enter.value + props.drop.home_s)
const by = computed(() => props.window.home_by_s)
const isHome = computed(() => props.drop.home_s_after_out !== null)
const SMALL_LETTER = 8
/** Words stand left of their line where what follows, or the end of the picture, is near. */
const LABEL = 130
const isLeft = (at: number, right: number) =>
  at + LABEL > right || (isHome.value && by.value !== null && home.value > by.value)
const fits = (words: string, width: number) => words.length * SMALL_LETTER + 4 < width
const spare = computed(() => (by.value === null ? null : by.value - home.value))
/** Steps as bars: from the one before to when each is done, or due. */
const bars = computed(() => {
  let from = 0
  return props.drop.sheet.map((one) => {
    const bar = { kind: one.kind, from, until: one.done_s ?? one.due_s, done: one.done_s !== null }
    from = bar.until
    return bar
  })
})
</script>

<template>
  <WindowPicture v-slot="{ x, right, narrow }" :window="window" :wanted="drop.wanted_m" :height="456">
    <path :d="`M${x(enter)} ${FRAME.top}V${FRAME.bottom}`" class="stroke-ink" stroke-width="2" />
    <text
      :x="x(enter) - 8"
      paint-order="stroke"
      stroke-width="5"
      :y="FRAME.bottom - 34"
      text-anchor="end"
      font-size="15"
      class="fill-ink stroke-sheet font-bold"
    >
      {{ drop.entered_s === null ? 'enters' : 'entered' }}
    </text>
    <g v-if="by !== null && by > 0">
      <path :d="`M${x(by)} ${FRAME.top}V448`" class="stroke-act" stroke-width="3" />
      <text
        :x="isLeft(x(by), right) ? x(by) - 8 : x(by) + 8"
        :y="FRAME.top + 20"
        :text-anchor="isLeft(x(by), right) ? 'end' : 'start'"
        font-size="17"
        class="fill-act font-bold"
      >
        home by {{ by.toFixed(0) }} s
      </text>
    </g>
    <g v-if="drop.out_at">
      <path :d="`M${x(elapsed)} ${FRAME.top}V448`" class="stroke-part" stroke-width="4" />
      <circle :cx="x(elapsed)" :cy="FRAME.top" r="7" class="fill-part" />
      <text v-if="isHome" :x="x(elapsed) + 9" :y="FRAME.top + 44" font-size="17" class="fill-part font-bold">
        home
      </text>
    </g>
    <g v-for="bar in bars" :key="bar.kind" font-size="14">
      <rect
        :x="x(bar.from)"
        y="404"
        :width="Math.max(2, x(bar.until) - x(bar.from) - 1.5)"
        height="44"
        class="stroke-rule"
        :class="bar.done ? 'fill-iron' : bar.kind === drop.next_step ? 'fill-act' : 'fill-sheet'"
      />
      <text
        v-if="fits(SHORT_STEPS[bar.kind] ?? bar.kind, x(bar.until) - x(bar.from))"
        :x="(x(bar.from) + x(bar.until)) / 2"
        y="424"
        text-anchor="middle"
        :class="bar.kind === drop.next_step && !bar.done ? 'fill-act-text font-bold' : 'fill-ink'"
      >
        {{ SHORT_STEPS[bar.kind] ?? bar.kind }}
      </text>
      <text
        v-if="fits(`by ${bar.until.toFixed(0)} s`, x(bar.until) - x(bar.from))"
        :x="(x(bar.from) + x(bar.until)) / 2"
        y="441"
        text-anchor="middle"
        font-size="13"
        class="num"
        :class="bar.kind === drop.next_step && !bar.done ? 'fill-act-text' : 'fill-ink-soft'"
      >
        {{ bar.done ? 'done' : `by ${bar.until.toFixed(0)} s` }}
      </text>
    </g>
    <rect
      :x="x(enter)"
      y="404"
      :width="Math.max(3, x(home) - x(enter))"
      height="44"
      :class="spare !== null && spare < 0 ? 'fill-out' : 'fill-part'"
    />
    <text
      v-if="!narrow && spare !== null && Math.max(x(home), x(by ?? 0)) + LABEL < right"
      :x="Math.max(x(home), x(by ?? 0)) + 8"
      y="431"
      font-size="15"
      :class="spare < 0 ? 'fill-out font-bold' : 'fill-ink'"
    >
      {{ spare < 0 ? `${(-spare).toFixed(0)} s too late` : `${spare.toFixed(0)} s to spare` }}
    </text>
  </WindowPicture>
</template>
