<script setup lang="ts">
import { computed } from 'vue'

import type { HoneSettingView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Bore, stones at both ends of the stroke, what stands above and below, and the cross-hatch at its angle, to scale. */
const props = defineProps<{ setting: HoneSettingView; boreM: number; clamped: boolean }>()
const TOP = 62
const s = computed(() => props.setting)
const scale = computed(() => {
  const out = (s.value.above_out_m ?? 0) + (s.value.below_out_m ?? 0)
  return Math.min(340 / (s.value.length_m + out), 190 / props.boreM)
})
const bore = computed(() => ({ w: props.boreM * scale.value, h: s.value.length_m * scale.value }))
const left = computed(() => 150 - bore.value.w / 2)
const above = computed(() => (s.value.above_out_m ?? 0) * scale.value)
const below = computed(() => (s.value.below_out_m ?? 0) * scale.value)
const stone = computed(() => s.value.stone_m * scale.value)
const foot = computed(() => TOP + above.value + bore.value.h)
const half = computed(() => Math.tan((((s.value.hatch_deg ?? 0) / 2) * Math.PI) / 180))
const middle = computed(() => TOP + above.value + bore.value.h / 2)
/** Scratches of both directions, at the angle that stroke and speed give. */
const scratches = computed(() => {
  const rise = bore.value.w * half.value
  const lines = []
  for (let y = TOP + above.value - rise; y < foot.value + rise; y += 17)
    lines.push(
      `M${left.value} ${y}l${bore.value.w} ${rise}`,
      `M${left.value} ${y + rise}l${bore.value.w} ${-rise}`,
    )
  return lines.join('')
})
const length = (metres: number | null) =>
  metres === null ? '' : lengthText(metres, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 1 : 0 })
</script>

<template>
  <figure aria-label="Stroke and hatch">
    <figcaption class="flex items-baseline justify-between">
      <b class="text-lg">Stroke and hatch</b><span class="text-sm text-ink-soft">to scale</span>
    </figcaption>
    <svg
      v-legible
      viewBox="0 0 340 500"
      class="mx-auto block max-h-[32rem] w-full"
      role="img"
      aria-label="Stones in the bore"
    >
      <defs>
        <clipPath id="hone-bore">
          <rect :x="left" :y="TOP + above" :width="bore.w" :height="bore.h" />
        </clipPath>
      </defs>
      <g v-if="clamped" class="fill-part-wash stroke-part">
        <rect :x="left - 26" :y="TOP + above - 34" width="26" height="34" />
        <rect :x="left + bore.w" :y="TOP + above - 34" width="26" height="34" />
        <text x="4" :y="TOP + above - 14" class="fill-part stroke-none text-[13px]">plate</text>
      </g>
      <rect :x="left - 26" :y="TOP + above" width="26" :height="bore.h" class="fill-iron stroke-ink-soft" />
      <rect
        :x="left + bore.w"
        :y="TOP + above"
        width="26"
        :height="bore.h"
        class="fill-iron stroke-ink-soft"
      />
      <rect :x="left" :y="TOP + above" :width="bore.w" :height="bore.h" class="fill-sheet" />
      <path :d="scratches" class="fill-none stroke-rule" stroke-width="1.3" clip-path="url(#hone-bore)" />
      <template v-for="side in [left, left + bore.w - 11]" :key="side">
        <rect
          :x="side"
          :y="TOP"
          width="11"
          :height="bore.h + above + below"
          class="fill-none stroke-ink"
          stroke-dasharray="4 3"
        />
        <rect :x="side" :y="middle - stone / 2" width="11" :height="stone" class="fill-plate" />
      </template>
      <path
        v-if="setting.hatch_deg !== null"
        :d="`M${left + 14} ${middle - (bore.w / 2 - 14) * half}L${left + bore.w - 14} ${middle + (bore.w / 2 - 14) * half}M${left + 14} ${middle + (bore.w / 2 - 14) * half}L${left + bore.w - 14} ${middle - (bore.w / 2 - 14) * half}`"
        class="stroke-ink"
        stroke-width="3"
      />
      <text
        x="150"
        :y="middle - bore.w * half * 0.5 - 22"
        text-anchor="middle"
        class="fill-ink text-[32px] font-bold"
      >
        {{ setting.hatch_deg === null ? '' : `${Math.round(setting.hatch_deg)}°` }}
      </text>
      <text
        x="150"
        :y="middle + bore.w * half * 0.5 + 34"
        text-anchor="middle"
        class="fill-ink-soft text-[15px]"
      >
        wanted {{ setting.wanted_deg }}°
      </text>
      <g class="text-[15px]">
        <text :x="left + bore.w + 34" :y="TOP + 18">
          <tspan class="num fill-ink font-bold">{{ length(setting.above_out_m) }}</tspan>
          <tspan class="fill-ink-soft">{{ ` ${SIZE_WITH[unit]}` }}</tspan>
          <tspan class="fill-ink-soft" :x="left + bore.w + 34" dy="17">out, top</tspan>
        </text>
        <text :x="left + bore.w + 34" :y="middle - 44">
          <tspan class="num fill-ink font-bold">{{ length(setting.stroke_m) }}</tspan>
          <tspan class="fill-ink-soft" :x="left + bore.w + 34" dy="17">{{ SIZE_WITH[unit] }} stroke</tspan>
          <tspan class="num fill-ink font-bold" :x="left + bore.w + 34" dy="26">{{ setting.strokes }}</tspan>
          <tspan class="fill-ink-soft" :x="left + bore.w + 34" dy="17">double</tspan>
          <tspan class="fill-ink-soft" :x="left + bore.w + 34" dy="17">strokes</tspan>
          <tspan class="num fill-ink font-bold" :x="left + bore.w + 34" dy="26">{{ setting.turns }}</tspan>
          <tspan class="fill-ink-soft" :x="left + bore.w + 34" dy="17">turns,</tspan>
          <tspan class="fill-ink-soft" :x="left + bore.w + 34" dy="17">a minute</tspan>
        </text>
        <text :x="left + bore.w + 34" :y="foot + below">
          <tspan class="num fill-ink font-bold">{{ length(setting.below_out_m) }}</tspan>
          <tspan class="fill-ink-soft">{{ ` ${SIZE_WITH[unit]}` }}</tspan>
          <tspan class="fill-ink-soft" :x="left + bore.w + 34" dy="17">out, foot</tspan>
        </text>
      </g>
      <g v-if="setting.stop_m !== null">
        <rect
          :x="150 - bore.w / 4"
          :y="foot + below + 2"
          :width="bore.w / 2"
          :height="Math.max(8, Math.min(26, setting.stop_m * scale))"
          class="fill-part-wash stroke-part"
        />
        <rect
          :x="left - 26"
          :y="foot + below + 2 + Math.max(8, Math.min(26, setting.stop_m * scale))"
          :width="bore.w + 52"
          height="12"
          class="fill-iron stroke-ink-soft"
        />
        <text x="150" :y="foot + below + 60" text-anchor="middle" class="fill-part text-[14px]">
          stop block, {{ length(setting.stop_m) }} {{ SIZE_WITH[unit] }} high
        </text>
      </g>
    </svg>
    <p class="text-sm text-ink-soft">As much out at both ends: more at one bells it.</p>
  </figure>
</template>
