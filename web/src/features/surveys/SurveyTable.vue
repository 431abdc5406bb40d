<script setup lang="ts">
import { computed } from 'vue'

import type { PlaceReadView, SurveyView } from '@/api/generated'
import { digitsFor, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { NUMBER_TONE } from '@/shared/format/tones'

import { placeKey } from '@/shared/state/places'

/** Every figure by level and axis, with what runs along each row and each column. */
const props = defineProps<{ survey: SurveyView; at: string | null }>()
const emit = defineEmits<{ choose: [key: string] }>()
const axes = computed(() => props.survey.pattern.axes_deg)
const shown = computed(() =>
  props.survey.is_size && !props.survey.relative ? SIZE_WITH[unit.value] : unit.value,
)
const digits = computed(() =>
  digitsFor(Number(props.survey.setup?.gauge.resolution_um ?? 0) / 1e6, shown.value),
)
const rows = computed(() =>
  (props.survey.form?.levels ?? []).map((level) => ({
    level,
    name:
      level.name ||
      lengthText(level.depth_m, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 2 : 1 }),
    cells: axes.value.map((axis) => cellAt(level.depth_m, axis)),
  })),
)
function cellAt(depth: number, axis: number): PlaceReadView | null {
  const at = (row: PlaceReadView) =>
    row.place.axis_deg === axis && Math.abs(Number(row.place.level_um ?? NaN) / 1e6 - depth) < 1e-9
  return props.survey.places.find(at) ?? null
}
const figure = (row: PlaceReadView | null) => {
  if (row?.unreadable) return 'cannot be read'
  if (row?.value_m == null) return '–'
  return lengthText(row.value_m, shown.value, { digits: digits.value })
}
const small = (metres: number | null) => (metres === null ? '–' : lengthText(metres, unit.value))
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="w-full border-collapse text-sm" aria-label="Figures by level and axis">
      <thead>
        <tr class="border-b border-ink-soft text-right text-ink-soft">
          <th scope="col" class="py-1 text-left font-normal">{{ shown }}</th>
          <th v-for="axis in axes" :key="axis" scope="col" class="px-2 font-normal">{{ axis }}°</th>
          <th scope="col" class="pl-2 font-normal">out of round [{{ unit }}]</th>
          <th scope="col" class="pl-2 font-normal">ovality</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.level.depth_m" class="border-b border-rule text-right">
          <th scope="row" class="py-1 pr-2 text-left font-normal">{{ row.name }}</th>
          <td v-for="(cell, index) in row.cells" :key="index" class="num px-1">
            <button
              v-if="cell"
              type="button"
              class="min-h-8 px-1"
              :class="[
                cell.state ? NUMBER_TONE[cell.state] : '',
                placeKey(cell.place) === at && 'outline-2 outline-act',
                cell.doubtful && 'text-unsure underline decoration-dotted',
              ]"
              :aria-label="`${cell.name}: ${figure(cell)}${cell.state ? `, ${cell.state}` : ''}`"
              @click="emit('choose', placeKey(cell.place))"
            >
              {{ figure(cell) }}
            </button>
          </td>
          <td class="num pl-2">{{ small(row.level.out_of_round_m) }}</td>
          <td class="num pl-2">{{ small(row.level.ovality_m) }}</td>
        </tr>
      </tbody>
      <tfoot v-if="survey.form && rows.length > 1">
        <tr class="text-right">
          <th scope="row" class="py-1 text-left font-normal text-ink-soft">
            taper, + larger at the top [{{ unit }}]
          </th>
          <td v-for="(taper, index) in survey.form.taper_per_axis_m" :key="index" class="num px-2">
            {{ small(taper) }}
          </td>
          <td class="num pl-2">{{ small(survey.form.worst_out_of_round_m) }}</td>
          <td />
        </tr>
      </tfoot>
    </table>
  </div>
</template>
