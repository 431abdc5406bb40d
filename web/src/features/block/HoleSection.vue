<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, HoleView } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { lengthText, smallText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import * as s from './section'
import SectionParts from './SectionParts.vue'

/** The chosen hole cut through at one clock position, heights magnified. */
const props = defineProps<{
  block: BlockView
  hole: HoleView
  hour: number | null
  previewValue: number | null
}>()

const mark = computed(() => props.hole.marks.find((one) => one.hour === props.hour && !one.past))
const protrusion = computed(
  () =>
    props.previewValue ??
    mark.value?.mean_m ??
    props.hole.mean_m ??
    props.hole.parts.predicted_m ??
    props.hole.expected_m,
)
const measured = computed(() => props.previewValue !== null || props.hole.marks.some((one) => !one.past))
const kind = computed(() => {
  if (props.previewValue !== null) return 'typed, not taken'
  return measured.value ? 'measured' : 'predicted'
})
const expanded = computed(() => {
  if (props.previewValue !== null) return null
  if (mark.value) return mark.value.expanded_m
  return props.hole.mean_expanded_m ?? props.hole.parts.predicted_expanded_m ?? props.hole.expected_expanded_m
})
const lip = computed(() => {
  const raised = props.block.card.lands.find(([name, height]) => name !== props.block.card.land && height > 0)
  return raised ? { name: raised[0], height: raised[1], note: raised[2] } : null
})
const shim = computed(() =>
  props.hole.shims.reduce((sum, one) => sum + Number(one.measured_um ?? one.nominal_um) / 1e6, 0),
)
const gap = computed(() => {
  const depth = props.hole.parts.ledge_depths.find((one) => one.hour === props.hour)?.depth_m
  const rests = props.hole.parts.ledge_depths.map((one) => one.depth_m)
  return depth === undefined || rests.length === 0 ? 0 : depth - Math.min(...rests)
})
const picture = computed(() =>
  s.sectionPicture({
    protrusion: protrusion.value,
    least: props.hole.least_m,
    greatest: props.hole.greatest_m,
    lip: lip.value?.height ?? 0,
    shim: shim.value,
    gap: gap.value,
  }),
)
const limitLines = computed(() =>
  (
    [
      ['greatest', props.hole.greatest_m],
      ['least', props.hole.least_m],
    ] as const
  )
    .filter((line): line is readonly ['greatest' | 'least', number] => line[1] !== null)
    .map(([name, value]) => ({ name, value, y: picture.value.yOf(value) })),
)
const clearOfLimits = computed(() => {
  const y = (picture.value.linerTop + picture.value.yOf(0)) / 2
  return limitLines.value.some((line) => Math.abs(line.y - y) < 14) ? y + 18 : y
})
const small = (metres: number) =>
  lengthText(metres, unit.value, { signed: true, limits: [props.hole.least_m, props.hole.greatest_m] })
</script>

<template>
  <figure>
    <figcaption class="text-sm text-ink-soft">
      section at {{ hour === null ? 'the mean' : hourText(hour) }} · parts broken, heights ×
      {{ picture.factor }}
    </figcaption>
    <svg
      v-legible
      :viewBox="`0 0 ${s.WIDTH} ${s.HEIGHT}`"
      class="w-full max-w-[30rem]"
      role="img"
      :aria-label="`Section of hole ${hole.number}`"
    >
      <path
        :d="`M${s.DECK_LEFT} ${picture.yOf(0)}H${s.STEP_X}V${picture.ledge}H${s.LEDGE_X}V${s.BOTTOM}H${s.DECK_LEFT}z`"
        class="fill-iron stroke-ink-soft"
        stroke-width="1.3"
      />
      <path
        v-if="protrusion !== null"
        :d="`M${s.LINER_X} ${picture.linerTop}H${s.LINER_RIGHT}V${s.BOTTOM}H${s.LEDGE_X + 5}V${picture.flangeUnderside}H${s.LINER_X}z`"
        class="fill-part-wash stroke-part"
        stroke-width="1.8"
        :stroke-dasharray="measured ? undefined : '6 4'"
      />
      <rect
        v-if="shim > 0"
        :x="s.LINER_X"
        :y="picture.flangeUnderside"
        :width="s.LEDGE_X - s.LINER_X"
        :height="s.LEDGE_Y - picture.flangeUnderside"
        class="fill-act"
      />
      <rect
        v-if="lip && protrusion !== null"
        :x="s.LINER_RIGHT - 40"
        :y="picture.yOf(protrusion + lip.height)"
        width="26"
        :height="picture.linerTop - picture.yOf(protrusion + lip.height)"
        class="fill-none stroke-part"
        stroke-dasharray="3 3"
      >
        <title>{{ lip.note }}</title>
      </rect>
      <path :d="s.wave(0, s.LINER_RIGHT + 8, s.BREAK_Y)" class="fill-none stroke-paper" stroke-width="9" />
      <path :d="s.wave(0, s.LINER_RIGHT + 8, s.BREAK_Y - 5)" class="fill-none stroke-ink-soft" />
      <path :d="s.wave(0, s.LINER_RIGHT + 8, s.BREAK_Y + 5)" class="fill-none stroke-ink-soft" />
      <g v-for="line in limitLines" :key="line.name">
        <path
          :d="`M${s.DECK_LEFT} ${line.y}H${s.STEP_X - 2}`"
          class="stroke-in"
          stroke-dasharray="6 4"
          stroke-width="1.3"
        />
        <text :x="s.DECK_LEFT" :y="line.y - 4" class="fill-in" font-size="13">
          {{ line.name }} {{ lengthText(line.value, unit) }}
        </text>
      </g>
      <g v-if="protrusion !== null">
        <path
          :d="`M${s.STEP_X - 10} ${picture.yOf(0)}V${picture.linerTop}`"
          class="stroke-act"
          stroke-width="3"
        />
        <text
          :x="s.STEP_X - 17"
          :y="clearOfLimits + 5"
          text-anchor="end"
          class="fill-act font-mono font-bold"
          font-size="17"
        >
          {{ small(protrusion) }}
        </text>
        <path :d="`M${s.LINER_X + 30} ${picture.linerTop}l-7 -14h14z`" class="fill-act" />
        <text
          :x="s.LINER_X + 30"
          :y="picture.linerTop - 19"
          text-anchor="middle"
          class="fill-act"
          font-size="13"
        >
          {{ block.card.land }}
        </text>
        <text
          v-if="lip"
          :x="s.LINER_RIGHT - 8"
          :y="picture.yOf(protrusion + lip.height) + 12"
          class="fill-part"
          font-size="13"
        >
          {{ lip.name }}, if any: {{ small(lip.height) }}
        </text>
        <text :x="s.LINER_RIGHT + 8" :y="picture.linerTop + 30" class="fill-ink" font-size="13">
          {{ kind }}
        </text>
        <text :x="s.LINER_RIGHT + 8" :y="picture.linerTop + 47" class="fill-ink font-mono" font-size="13">
          {{ smallText(protrusion, expanded, unit, { limits: [hole.least_m, hole.greatest_m] }) }}
        </text>
      </g>
      <SectionParts :hole="hole" :shim="shim" :gap="gap" />
    </svg>
  </figure>
</template>
