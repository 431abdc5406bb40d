<script setup lang="ts">
import { computed } from 'vue'

import { clockText, hourOfAngle } from '@/shared/format/clock'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import type { Shown } from './shown'

/** Every reading of what is shown, level by level; the level chosen is the one of the picture. */
const props = defineProps<{ shown: Shown; depth: number | null }>()
const emit = defineEmits<{ level: [depth: number] }>()
const half = computed(() => props.shown.kind !== 'wear')
const columns = computed(() =>
  [...new Set(props.shown.dots.map((one) => one.angle_deg))]
    .filter((angle) => !half.value || angle < 180)
    .sort((a, b) => a - b),
)
const rows = computed(() =>
  [...new Set(props.shown.dots.map((one) => one.depth_m))]
    .sort((a, b) => a - b)
    .map((depth) => ({
      depth,
      cells: columns.value.map((angle) =>
        props.shown.dots.find((one) => one.depth_m === depth && one.angle_deg === angle),
      ),
    })),
)
const worst = computed(() => Math.max(0, ...props.shown.dots.map((one) => one.expanded_m)))
const text = (value: number) =>
  lengthText(value - props.shown.offset, unit.value, { signed: props.shown.kind !== 'wear' })
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="w-full border-collapse text-sm" aria-label="Readings of the wall">
      <thead>
        <tr class="border-b border-ink-soft text-right text-ink-soft">
          <th scope="col" class="py-1 text-left font-normal">
            {{ unit }}, each ±{{ uncertaintyText(worst, unit) }}
          </th>
          <th v-for="angle in columns" :key="angle" scope="col" class="num px-1 font-normal">
            {{ half ? `${angle}°` : clockText(hourOfAngle(angle)).replace(':00', '') }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.depth"
          class="border-b border-rule text-right"
          :class="row.depth === depth && 'bg-act-wash'"
        >
          <th scope="row" class="text-left font-normal">
            <button
              type="button"
              class="min-h-8"
              :aria-pressed="row.depth === depth"
              @click="emit('level', row.depth)"
            >
              <span class="num">{{
                lengthText(row.depth, SIZE_WITH[unit], { digits: unit === 'thou' ? 2 : 1 })
              }}</span>
              {{ SIZE_WITH[unit] }}
            </button>
          </th>
          <td v-for="(cell, at) in row.cells" :key="at" class="num px-1">
            {{ cell ? text(cell.value_m) : '–' }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
