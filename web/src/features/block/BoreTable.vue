<script setup lang="ts">
import { computed } from 'vue'

import type { BoresView, BoreView, DerivedKind, SurveyFormView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { NUMBER_TONE, STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'

import { isOnlyRead } from './faces'
import type { BoreLevelAt } from './useBores'

/** Every hole in a line, and the hole at hand level by level. */
const props = defineProps<{ bores: BoresView; chosen: BoreView | null; level: BoreLevelAt | null }>()
const emit = defineEmits<{ choose: [hole: number]; level: [depth_um: string] }>()

function shown(survey: SurveyFormView, value: number | null | undefined): string {
  if (value == null) return '–'
  if (survey.nominal_m === null) return lengthText(value, SIZE_WITH[unit.value])
  return lengthText(value - survey.nominal_m, unit.value, { signed: true })
}
const told = (survey: SurveyFormView, kind: DerivedKind) =>
  survey.told.find((one) => one.kind === kind) ?? null
const ruleOf = (survey: SurveyFormView, rule: string, where: string) =>
  survey.rules.find((one) => one.rule === rule && one.where === where)
const rows = computed(() =>
  props.bores.bores.map((bore) => {
    const { survey } = bore
    const round = told(survey, 'out of round')
    const taper = told(survey, 'taper')
    return { bore, survey, round, taper, state: survey.part.state }
  }),
)
const axes = computed(() => props.bores.bores[0]?.survey.pattern.axes_deg ?? [])
const levels = computed(() => {
  const survey = props.chosen?.survey
  if (!survey) return []
  return survey.pattern.levels.map((level) => {
    const at = (one: { depth_m: number }) => Math.abs(one.depth_m - level.depth_m) < 1e-9
    const um = Math.round(level.depth_m * 1e9) / 1e3
    const cells = axes.value.map((axis) =>
      survey.places.find((row) => Number(row.place.level_um) === um && row.place.axis_deg === axis),
    )
    const press = survey.interference.map((liner) => ({
      mark: liner.liner_mark,
      doubtful: liner.doubtful,
      at: liner.levels.find(at) ?? null,
    }))
    return { ...level, um: String(um), cells, form: survey.form?.levels.find(at) ?? null, press }
  })
})
const pressed = computed(() => props.chosen?.survey.interference ?? [])
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Every bore in numbers">
    <table class="w-full border-collapse text-[0.95rem]">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 pl-2 text-left font-normal">Hole</th>
          <th scope="col" class="px-2 text-right font-normal">least</th>
          <th scope="col" class="px-2 text-right font-normal">greatest</th>
          <th scope="col" class="px-2 text-right font-normal whitespace-nowrap">out of round</th>
          <th scope="col" class="px-2 text-left font-normal">at</th>
          <th scope="col" class="px-2 text-right font-normal">taper</th>
          <th scope="col" class="px-2 text-left font-normal">state</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="{ bore, survey, round, taper, state } in rows"
          :key="bore.hole"
          class="cursor-pointer border-b border-rule"
          :class="bore.hole === chosen?.hole ? 'bg-act-wash' : 'hover:bg-sheet'"
          @click="emit('choose', bore.hole)"
        >
          <th scope="row" class="py-1.5 pl-2 text-left">
            <button type="button" :title="`Choose hole ${bore.hole}`">{{ bore.hole }}</button>
          </th>
          <td class="num px-2 text-right">{{ shown(survey, survey.part.least_m) }}</td>
          <td class="num px-2 text-right">{{ shown(survey, survey.part.greatest_m) }}</td>
          <td class="num px-2 text-right">
            <template v-if="round"
              >{{ lengthText(round.value_m, unit) }}
              <span class="text-sm text-ink-soft"
                >±{{ uncertaintyText(round.expanded_m, unit) }}</span
              ></template
            ><template v-else>–</template>
          </td>
          <td class="px-2">{{ round?.where ?? '' }}</td>
          <td class="num px-2 text-right">{{ taper ? lengthText(taper.value_m, unit) : '–' }}</td>
          <td
            class="max-w-72 truncate px-2"
            :class="isOnlyRead(bore) ? 'text-ink-soft' : STATE_TONE[state]"
            :title="survey.part.reason"
          >
            <template v-if="isOnlyRead(bore)">read, no limit</template>
            <template v-else
              ><StateGate :state="state" class="mr-1 inline align-[-3px]" />{{
                state === 'in' ? 'in' : survey.part.reason || state
              }}</template
            >
          </td>
        </tr>
      </tbody>
    </table>
    <table v-if="chosen && levels.length" class="mt-2 w-full border-collapse text-[0.95rem]">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 pl-2 text-left font-normal">
            Hole {{ chosen.hole }} by level, {{ SIZE_WITH[unit] }} deep
          </th>
          <th v-for="axis in axes" :key="axis" scope="col" class="num px-2 text-right font-normal">
            {{ axis }}°
          </th>
          <th scope="col" class="px-2 text-right font-normal">round</th>
          <th scope="col" class="px-2 text-right font-normal">mean</th>
          <th v-for="one in pressed" :key="one.liner_mark" scope="col" class="px-2 text-right font-normal">
            press with {{ one.liner_mark
            }}<span v-if="one.doubtful" class="block text-xs text-unsure">zero found moved</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in levels"
          :key="row.um"
          class="cursor-pointer border-b border-rule"
          :class="row.um === level?.depth_um ? 'bg-act-wash' : 'hover:bg-sheet'"
          @click="emit('level', row.um)"
        >
          <th scope="row" class="py-1 pl-2 text-left font-normal">
            <button type="button" :title="`Look at ${row.name}`">{{ row.name }}</button>
            <span class="num ml-2 text-sm text-ink-soft">{{
              lengthText(row.depth_m, SIZE_WITH[unit], { digits: unit === 'thou' ? 1 : 0 })
            }}</span>
          </th>
          <td v-for="(cell, index) in row.cells" :key="index" class="num px-2 text-right">
            <span :class="cell?.state && NUMBER_TONE[cell.state]">{{
              cell?.unreadable ? '✕' : shown(chosen.survey, cell?.value_m ?? null)
            }}</span>
          </td>
          <td class="num px-2 text-right">
            <span :class="NUMBER_TONE[ruleOf(chosen.survey, 'out of round', row.name)?.state ?? 'in']">{{
              row.form?.out_of_round_m == null ? '–' : lengthText(row.form.out_of_round_m, unit)
            }}</span>
          </td>
          <td class="num px-2 text-right">{{ shown(chosen.survey, row.form?.mean_m ?? null) }}</td>
          <td v-for="one in row.press" :key="one.mark" class="num px-2 text-right">
            <template v-if="one.at">
              <span :class="one.doubtful && 'text-unsure'">{{
                lengthText(one.at.interference_m, unit, { signed: true })
              }}</span>
              <span class="text-sm text-ink-soft"> ±{{ uncertaintyText(one.at.expanded_m, unit) }}</span>
            </template>
            <template v-else>–</template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
