<script setup lang="ts">
import type { GaugeVersion } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { dayText } from '@/shared/format/time'
import { unit } from '@/shared/state/preferences'

/** The register: what each gauge can show, how truly, when and against what it was checked, whose it is. */
defineProps<{ gauges: GaugeVersion[]; edited: string | null }>()
const emit = defineEmits<{ change: [gauge: GaugeVersion] }>()

const metres = (um: string | number) => Number(um) / 1e6
const small = (um: string | number) =>
  lengthText(metres(um), unit.value, { digits: unit.value === 'thou' ? 2 : 1 })
const size = (um: string | number) =>
  lengthText(metres(um), SIZE_WITH[unit.value], { digits: SIZE_WITH[unit.value] === 'inch' ? 3 : 2 })
const range = (gauge: GaugeVersion) =>
  gauge.range_from_um === null || gauge.range_to_um === null || gauge.range_from_um === undefined
    ? ''
    : `${size(gauge.range_from_um)} to ${size(gauge.range_to_um ?? 0)}`
const today = dayText()
const overdue = (gauge: GaugeVersion) => Boolean(gauge.due_on && gauge.due_on < today)
const remarks = (gauge: GaugeVersion) =>
  [gauge.note, gauge.owner ? `belongs to ${gauge.owner}` : '', `version ${gauge.version}`].filter(Boolean)
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="w-full border-collapse">
      <thead>
        <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
          <th scope="col" class="py-2 font-normal">Gauge</th>
          <th scope="col" class="pr-4 font-normal">kind</th>
          <th scope="col" class="pr-4 text-right font-normal">range [{{ SIZE_WITH[unit] }}]</th>
          <th scope="col" class="pr-4 text-right font-normal">step [{{ unit }}]</th>
          <th scope="col" class="pr-4 text-right font-normal">repeats within [{{ unit }}]</th>
          <th scope="col" class="pr-4 font-normal">tip, radius [{{ SIZE_WITH[unit] }}]</th>
          <th scope="col" class="pr-4 font-normal">checked</th>
          <th scope="col" class="relative"><span class="sr-only">change</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="gauge in gauges"
          :key="gauge.gauge_id"
          class="border-b border-rule align-top"
          :class="edited === gauge.gauge_id && 'bg-act-wash'"
        >
          <th scope="row" class="py-2 pr-4 text-left">
            {{ gauge.name }}
            <span class="block text-xs font-normal text-ink-soft">{{ remarks(gauge).join(' · ') }}</span>
            <span v-if="gauge.faults" class="block text-sm font-normal text-unsure"
              >fault: {{ gauge.faults }}</span
            >
          </th>
          <td class="py-2 pr-4">{{ gauge.kind }}</td>
          <td class="num py-2 pr-4 text-right">{{ range(gauge) || '–' }}</td>
          <td class="num py-2 pr-4 text-right">{{ small(gauge.resolution_um) }}</td>
          <td class="num py-2 pr-4 text-right">{{ small(gauge.repeatability_um) }}</td>
          <td class="py-2 pr-4">
            {{ gauge.tip
            }}<template v-if="gauge.tip_radius_um"
              >, <span class="num">{{ size(gauge.tip_radius_um) }}</span></template
            >
          </td>
          <td class="py-2 pr-4">
            <template v-if="gauge.calibrated_on">
              <span class="num">{{ gauge.calibrated_on }}</span>
              <span v-if="gauge.master" class="block text-xs text-ink-soft">on {{ gauge.master }}</span>
            </template>
            <template v-else>no record</template>
            <span v-if="overdue(gauge)" class="block text-sm text-unsure"
              >was due <span class="num">{{ gauge.due_on }}</span></span
            >
          </td>
          <td class="py-2 text-right">
            <button
              type="button"
              class="quiet text-sm"
              :aria-label="`Change ${gauge.name}`"
              @click="emit('change', gauge)"
            >
              Change
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
