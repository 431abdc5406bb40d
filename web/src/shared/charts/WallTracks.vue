<script setup lang="ts">
import { computed } from 'vue'

import type { PlaceReadView, SurveyFormView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import PlaceDial from './PlaceDial.vue'
import { placeKey } from '@/shared/state/places'
import { acrossOf, rowsOf, scaleOf } from './wall'
import WallMark from './WallMark.vue'

/** The wall as one limit track per level: bars are the limits, marks lie along their axis, copper is read now. */
const props = defineProps<{
  survey: SurveyFormView
  at: string | null
  tip: number | null
  plain?: boolean
}>()
const emit = defineEmits<{ choose: [key: string] }>()

const phone = usePhone()
/** Beside a block there is less room across, and none for the dial; on a phone least. */
const room = computed(() => {
  if (phone.value) return { left: 104, width: 168, right: 68 }
  return props.plain ? { left: 128, width: 206, right: 70 } : { left: 128, width: 300, right: 92 }
})
const left = computed(() => room.value.left)
const width = computed(() => room.value.width)
const right = computed(() => room.value.right)
/** Room above for the dial, where it is drawn. */
const TOP = props.plain ? 24 : 118
const HEIGHT = props.plain ? 270 : 372

const scale = computed(() => scaleOf(props.survey))
const levels = computed(() => {
  const byDepth = new Map<number, PlaceReadView[]>()
  for (const row of props.survey.places) {
    const depth = Number(row.place.level_um ?? 0)
    byDepth.set(depth, [...(byDepth.get(depth) ?? []), row])
  }
  const depths = [...byDepth.keys()].sort((a, b) => a - b)
  const heights = rowsOf(depths, HEIGHT, 46)
  return depths.map((depth, index) => {
    const rows = [...(byDepth.get(depth) ?? [])].sort(
      (a, b) => (a.place.axis_deg ?? 0) - (b.place.axis_deg ?? 0),
    )
    const form = props.survey.form?.levels.find((one) => Math.abs(one.depth_m - depth / 1e6) < 1e-9)
    const name = props.survey.pattern.levels.find((one) => Math.abs(one.depth_m - depth / 1e6) < 1e-9)?.name
    return { depth, y: TOP + (heights[index] ?? 0), rows, form, name: name ?? '' }
  })
})
const here = computed(() => props.survey.places.find((row) => placeKey(row.place) === props.at) ?? null)
/** The hand of the dial: an axis, or a clock position counted from the front. */
const directionOf = (row: PlaceReadView | null) => {
  if (row?.place.axis_deg != null) return row.place.axis_deg
  return row?.place.hour != null ? (30 * (row.place.hour - 9) + 360) % 360 : null
}
const axis = computed(() => directionOf(here.value))
const depthText = (um: number) =>
  `${lengthText(um / 1e6, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 2 : 0 })}`
const wall = computed(() =>
  levels.value
    .filter((level) => level.form?.mean_m != null)
    .map(
      (level) => `${left.value + acrossOf(level.form?.mean_m ?? 0, scale.value, width.value).x},${level.y}`,
    )
    .join(' '),
)
const bars = computed(() =>
  [scale.value.least, scale.value.greatest]
    .filter((one) => one !== null)
    .map((value) => ({
      x: left.value + acrossOf(value, scale.value, width.value).x,
      text: offNominal(value),
    })),
)
/** A size is written as its distance from the nominal: that is what a dial shows. */
function offNominal(value: number): string {
  const nominal = props.survey.nominal_m
  if (props.survey.is_size && nominal === null) return lengthText(value, SIZE_WITH[unit.value])
  return lengthText(value - (props.survey.is_size ? (nominal ?? 0) : 0), unit.value, { signed: true })
}
/** Another level, on the axis at hand where it has one. */
function chooseLevel(rows: PlaceReadView[]): void {
  const row = rows.find((one) => directionOf(one) === axis.value) ?? rows[0]
  if (row) emit('choose', placeKey(row.place))
}
const across = (value: number) => acrossOf(value, scale.value, width.value)
/** What is to be read again stays to be seen where it stood. */
const standing = (row: PlaceReadView) => row.value_m ?? row.past_m
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${left + width + right} ${TOP + HEIGHT + 26}`"
    role="group"
    :aria-label="`${survey.quantity} of ${survey.part.title}, drawn level by level`"
    class="h-auto w-full"
  >
    <PlaceDial
      v-if="axis !== null && !plain"
      :transform="`translate(${left + width / 2} 52)`"
      :axis="axis"
      :hour="here?.place.hour ?? null"
      :quantity="survey.quantity"
    />
    <rect :x="left" :y="TOP" :width="width" :height="HEIGHT" class="fill-sheet stroke-rule" />
    <rect
      v-if="bars.length === 2"
      :x="bars[0]?.x"
      :y="TOP"
      :width="(bars[1]?.x ?? 0) - (bars[0]?.x ?? 0)"
      :height="HEIGHT"
      class="fill-track"
    />
    <g v-for="bar in bars" :key="bar.x">
      <path :d="`M${bar.x} ${TOP}V${TOP + HEIGHT}`" class="stroke-ink" stroke-width="2.5" />
      <text :x="bar.x" :y="TOP + HEIGHT + 18" text-anchor="middle" font-size="14" class="num fill-ink">
        {{ bar.text }}
      </text>
    </g>
    <polyline :points="wall" fill="none" class="stroke-part" stroke-width="2" />
    <g v-for="level in levels" :key="level.depth">
      <path :d="`M${left} ${level.y}H${left + width}`" class="stroke-rule" stroke-dasharray="2 4" />
      <text :x="left - 10" :y="level.y - 2" text-anchor="end" font-size="14" class="fill-ink">
        {{ level.name }}
      </text>
      <text
        v-if="survey.pattern.levels.length"
        :x="left - 10"
        :y="level.y + 14"
        text-anchor="end"
        font-size="13"
        class="num fill-ink-soft"
      >
        {{ depthText(level.depth) }} {{ SIZE_WITH[unit] }}
      </text>
      <text
        v-if="level.form?.out_of_round_m != null"
        :x="left + width + 8"
        :y="level.y + 5"
        font-size="14"
        class="num fill-ink"
      >
        {{ lengthText(level.form.out_of_round_m, unit) }}
      </text>
      <template v-for="(row, index) in level.rows" :key="placeKey(row.place)">
        <WallMark
          v-if="standing(row) !== null"
          :transform="`translate(${left + across(standing(row) ?? 0).x} ${level.y + (index - (level.rows.length - 1) / 2) * 8})`"
          :row="row"
          :direction="directionOf(row)"
          :beyond="across(standing(row) ?? 0).beyond"
          :text="offNominal(standing(row) ?? 0)"
        />
      </template>
      <text
        v-if="level.rows.some((row) => row.unreadable)"
        :x="left + 8"
        :y="level.y + 4"
        font-size="13"
        class="fill-unsure"
      >
        {{ level.rows.filter((row) => row.unreadable).length }} cannot be read
      </text>
      <rect
        v-if="level.rows.some((row) => placeKey(row.place) === at)"
        :x="2"
        :y="level.y - 21"
        :width="left + width + right - 4"
        height="42"
        fill="none"
        rx="4"
        class="stroke-act"
        stroke-width="2.5"
      />
      <rect
        x="0"
        :y="level.y - 22"
        :width="left + width + right"
        height="44"
        fill="transparent"
        class="cursor-pointer"
        role="button"
        tabindex="0"
        :aria-label="`Read at ${level.name || depthText(level.depth)}`"
        @click="chooseLevel(level.rows)"
        @keydown.enter.prevent="chooseLevel(level.rows)"
      />
      <path
        v-if="tip !== null && level.rows.some((row) => placeKey(row.place) === at)"
        :d="`M${left + across(tip).x} ${level.y - 16}l6 -9h-12z`"
        class="fill-act"
        data-tip
      />
    </g>
    <text
      v-if="survey.is_diameter"
      :x="left + width + right - 2"
      :y="TOP - 8"
      text-anchor="end"
      font-size="13"
      class="fill-ink-soft"
    >
      out of round
    </text>
    <text :x="4" :y="TOP + HEIGHT + 18" font-size="13" class="fill-ink-soft">
      {{
        survey.is_size && survey.nominal_m !== null
          ? `from nominal, ${unit}`
          : survey.is_size
            ? SIZE_WITH[unit]
            : unit
      }}
    </text>
  </svg>
</template>
