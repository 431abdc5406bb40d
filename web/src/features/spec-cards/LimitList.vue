<script setup lang="ts">
import { computed } from 'vue'

import type { Limit, SpecCard } from '@/api/generated'
import { asTyped } from '@/shared/format/lengths'
import { torqueText } from '@/shared/format/others'
import { featureOf } from '@/shared/state/catalogue'
import SourceBadge from '@/shared/ui/SourceBadge.vue'

import { bareOf, LIMIT_NAMES, type LimitName, wordsOf } from './cardDraft'

/** Every limit of a card in the card's own unit, with source and status. */
const props = defineProps<{ card: SpecCard }>()
const rows = computed(() => {
  const more = { stroke: props.card.stroke, bit_corner: props.card.cutter.bit_corner }
  const all = { ...props.card.limits, ...props.card.seat, ...more } as Record<string, Limit>
  return Object.entries(all).map(([key, limit]) => ({ key, limit }))
})
const bareUnit = (key: string) => {
  if (props.card.unit === 'mm') return 'mm'
  return [
    'flange_nominal',
    'counterbore_nominal',
    'ledge_at_nominal',
    'ledge_least',
    'sealing_land',
  ].includes(key)
    ? 'inch'
    : 'thou'
}
const howMeasured = computed(() => {
  const { land, datum, required_hours, hold_down, hold_down_torque_nm } = props.card.measuring
  const held = hold_down ? `held down by ${hold_down}` : 'not held down'
  const torque = hold_down_torque_nm ? `, ${torqueText(hold_down_torque_nm)}` : ''
  const hours = required_hours.map((hour) => `${hour}h`).join(', ')
  return `on the ${land}, from ${datum}, at ${hours}; ${held}${torque}`
})
const featureRows = computed(() =>
  (props.card.features ?? []).flatMap((sheet) =>
    (featureOf(sheet.quantity)?.limits ?? []).flatMap((one) => {
      const limit = sheet[one.field as LimitName]
      if (!limit?.length) return []
      const typed = asTyped(limit.length.typed, bareOf(one.is_size, props.card.unit))
      return [{ key: `${sheet.quantity}, ${one.label.toLowerCase()}`, limit, typed }]
    }),
  ),
)
const shown = (key: string, limit: Limit) => {
  if (limit.length === null) return 'none'
  return asTyped(limit.length.typed, bareUnit(key))
}
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="w-full border-collapse">
      <tbody>
        <tr v-for="row in rows" :key="row.key" class="border-b border-rule">
          <th scope="row" class="py-1.5 text-left font-normal whitespace-nowrap">
            {{ LIMIT_NAMES[row.key] ?? wordsOf(row.key) }}
          </th>
          <td
            class="num px-4 text-right font-bold"
            :class="row.limit.length === null && 'font-normal text-ink-soft'"
          >
            {{ shown(row.key, row.limit) }}
          </td>
          <td>
            <SourceBadge
              v-if="row.limit.length !== null"
              :status="row.limit.status ?? 'unverified'"
              :source="row.limit.source"
            />
          </td>
        </tr>
        <tr v-for="row in featureRows" :key="row.key" class="border-b border-rule">
          <th scope="row" class="py-1.5 text-left font-normal">{{ row.key }}</th>
          <td class="num px-4 text-right font-bold">{{ row.typed }}</td>
          <td><SourceBadge :status="row.limit.status ?? 'unverified'" :source="row.limit.source" /></td>
        </tr>
        <tr class="border-b border-rule">
          <th scope="row" class="py-1.5 text-left font-normal">measured</th>
          <td colspan="2" class="px-4">
            {{ howMeasured }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
