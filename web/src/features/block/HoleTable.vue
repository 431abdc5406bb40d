<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, HoleView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { hourText } from '@/shared/format/clock'
import { SIZE_WITH, lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import SmallLength from '@/shared/ui/SmallLength.vue'

import LedgeCells from './LedgeCells.vue'

import type { ClockLens } from '@/shared/subjects'
import { NUMBER_TONE, STATE_TONE } from '@/shared/format/tones'

/** Every hole in numbers; the unit stands once above. */
const props = defineProps<{ block: BlockView; lens: ClockLens; chosen: number | null }>()
const emit = defineEmits<{ choose: [hole: number, hour: number | null] }>()

const hours = computed(() => {
  const all = new Set(props.block.card.required_hours)
  for (const hole of props.block.holes) {
    for (const mark of props.lens === 'protrusion' ? hole.marks : hole.parts.ledge_depths) all.add(mark.hour)
  }
  return [...all].sort((a, b) => (a % 12) - (b % 12))
})
const markAt = (hole: HoleView, hour: number) => hole.marks.find((mark) => mark.hour === hour)
const depthAt = (hole: HoleView, hour: number) => hole.parts.ledge_depths.find((depth) => depth.hour === hour)
/** The hole after this one under the same head, as the card lists them. */
function afterUnderHead(number: number): number | undefined {
  for (const head of props.block.card.heads) {
    const at = head.indexOf(number)
    if (at >= 0) return head[at + 1]
  }
  return undefined
}
const toNext = (hole: HoleView) =>
  hole.rules.find(
    (rule) => rule.rule === 'difference to neighbour' && rule.where === `hole ${afterUnderHead(hole.number)}`,
  )
const shimText = (hole: HoleView) => hole.shims.map((shim) => shim.typed).join(' + ')
/** A hole on a shim has limits of its own. */
const ownLimits = (hole: HoleView) =>
  [hole.least_m, hole.greatest_m]
    .map((limit) => (limit === null ? '…' : lengthText(limit, unit.value)))
    .join(' – ')
const digits = useGaugeDigits()
const size = (metres: number) =>
  lengthText(metres, SIZE_WITH[unit.value], { digits: digits.size('counterbore depth') })
</script>

<template>
  <table class="w-full border-collapse text-sm">
    <thead>
      <tr class="border-b border-ink-soft text-ink-soft">
        <th scope="col" class="py-1.5 pl-2 text-left font-normal">Hole</th>
        <th v-for="hour in hours" :key="hour" scope="col" class="px-2 text-right font-normal">
          {{ hourText(hour) }}
        </th>
        <th v-if="lens === 'protrusion'" scope="col" class="px-2 text-right font-normal">mean</th>
        <template v-if="lens === 'protrusion'">
          <th scope="col" class="px-2 text-right font-normal">round</th>
          <th scope="col" class="px-2 text-right font-normal">to next</th>
        </template>
        <template v-else>
          <th scope="col" class="px-2 text-right font-normal">square</th>
          <th scope="col" class="px-2 text-right font-normal">rests at</th>
          <th scope="col" class="px-2 text-right font-normal">ledge left</th>
          <th scope="col" class="px-2 text-right font-normal">parts give</th>
          <th scope="col" class="px-2 text-right font-normal">measured</th>
        </template>
        <th scope="col" class="px-3 text-left font-normal">liner</th>
        <th v-if="lens === 'protrusion'" scope="col" class="px-2 text-left font-normal">state</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="hole in block.holes"
        :key="hole.hole_id"
        class="cursor-pointer border-b border-rule"
        :class="hole.number === chosen ? 'bg-act-wash' : 'hover:bg-sheet'"
        @click="emit('choose', hole.number, null)"
      >
        <th scope="row" class="py-1.5 pl-2 text-left whitespace-nowrap">
          <button type="button" :title="`Choose hole ${hole.number}`">{{ hole.number }}</button><span
            v-if="lens === 'counterbore' && hole.last_cut"
            class="ml-2 text-xs font-normal text-part"
            >cut {{ hole.last_cut.typed }}</span
          >
        </th>
        <td
          v-for="hour in hours"
          :key="hour"
          class="px-2 text-right"
          @click.stop="emit('choose', hole.number, hour)"
        >
          <template v-if="lens === 'counterbore'">
            <span
              v-if="depthAt(hole, hour)"
              class="num"
              :class="depthAt(hole, hour)?.worn && 'font-bold text-unsure'"
              :title="depthAt(hole, hour)?.worn ? 'worn: deeper than the plane of the ledge' : undefined"
              >{{ size(depthAt(hole, hour)?.depth_m ?? 0) }}</span
            >
            <span v-else class="text-ink-soft">–</span>
          </template>
          <span v-else-if="markAt(hole, hour)" :class="NUMBER_TONE[markAt(hole, hour)?.state ?? 'in']">
            <SmallLength
              :metres="markAt(hole, hour)?.mean_m ?? 0"
              :limits="[hole.least_m, hole.greatest_m]"
              :signed="false"
            />
          </span>
          <span v-else class="text-ink-soft">–</span>
        </td>
        <template v-if="lens === 'protrusion'">
          <td class="px-2 text-right font-bold">
            <SmallLength
              v-if="hole.mean_m !== null"
              :metres="hole.mean_m"
              :expanded="hole.mean_expanded_m"
              :limits="[hole.least_m, hole.greatest_m]"
              :signed="false"
            />
          </td>
          <td class="px-2 text-right">
            <SmallLength
              v-if="hole.variation_m !== null"
              :metres="hole.variation_m"
              :expanded="hole.variation_expanded_m"
              :limits="[block.card.variation_m]"
              :signed="false"
            />
          </td>
          <td class="px-2 text-right" :class="NUMBER_TONE[toNext(hole)?.state ?? 'in']">
            <SmallLength
              v-if="toNext(hole)"
              :metres="Math.abs(toNext(hole)?.value_m ?? 0)"
              :expanded="toNext(hole)?.expanded_m"
              :limits="[block.card.neighbour_m]"
              :signed="false"
            />
            <span v-else class="text-ink-soft">–</span>
          </td>
        </template>
        <LedgeCells v-else :hole="hole" />
        <td class="px-3 whitespace-nowrap">
          {{ hole.liner?.mark ?? '–'
          }}<span v-if="hole.shims.length" class="text-part">
            +{{ shimText(hole) }}<span class="block text-xs text-ink-soft">{{ ownLimits(hole) }}</span></span
          >
        </td>
        <td v-if="lens === 'protrusion'" class="px-2" :class="STATE_TONE[hole.state]">
          <StateGate :state="hole.state" class="mr-1 inline align-[-3px]" />{{
            hole.state === 'in' ? 'in' : hole.reason || hole.state
          }}
        </td>
      </tr>
    </tbody>
  </table>
</template>
