<script setup lang="ts">
import { computed } from 'vue'

import type { ScanView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** What the levels of a scan hold: the reference circles and the lobes; of a change, size apart from shape. */
const props = defineProps<{
  jobId: string
  scan: ScanView
  depth: number | null
  cutOff: number | null
  cutOffs: number[]
}>()
const emit = defineEmits<{ level: [depth: number]; filter: [cutOff: number | null] }>()
const ORDERS = [2, 3, 4, 5, 6]
const isChange = computed(() => props.scan.scan_id === null)
const SHORT: Record<string, string> = {
  'least squares': 'least squares',
  'minimum zone': 'min. zone',
  'maximum inscribed': 'max. inscribed',
  'minimum circumscribed': 'min. circumscribed',
}
const small = (value: number | undefined | null) =>
  value == null ? '–' : lengthText(value, unit.value, { digits: unit.value === 'thou' ? 2 : 1 })
</script>

<template>
  <section aria-label="What the scan holds">
    <p class="flex flex-wrap items-center gap-x-3 text-sm text-ink-soft">
      <span v-if="!isChange"
        >{{ scan.points.toLocaleString('en') }} points, {{ scan.instrument || 'instrument not said' }},
        {{ scan.layout }}, by {{ scan.scanned_by }}</span
      >
      <label v-if="!isChange" class="flex items-center gap-1"
        >Gaussian filter
        <select
          class="field max-w-40"
          :value="cutOff ?? ''"
          @change="emit('filter', Number(($event.target as HTMLSelectElement).value) || null)"
        >
          <option value="">off</option>
          <option v-for="one in cutOffs" :key="one" :value="one">{{ one }} undulations a turn</option>
        </select></label
      >
      <a
        v-if="scan.scan_id"
        class="link"
        :href="`/api/jobs/${jobId}/scans/${scan.scan_id}/points.csv`"
        download="points.csv"
        >every point</a
      >
    </p>
    <div class="relative overflow-x-auto">
      <table class="w-full border-collapse text-sm" aria-label="Circles and lobes by level">
        <thead>
          <tr class="border-b border-ink-soft text-right text-ink-soft">
            <th scope="col" class="py-1 text-left font-normal">{{ SIZE_WITH[unit] }} deep</th>
            <template v-if="isChange">
              <th scope="col" class="px-2 font-normal">size, on the diameter</th>
              <th scope="col" class="px-2 font-normal">shape, high to low</th>
            </template>
            <template v-else>
              <th scope="col" class="px-2 font-normal">mean diameter [{{ SIZE_WITH[unit] }}]</th>
              <th
                v-for="circle in scan.levels[0]?.circles"
                :key="circle.reference"
                scope="col"
                class="px-2 font-normal"
              >
                {{ SHORT[circle.reference] }}
              </th>
            </template>
            <th v-for="order in ORDERS" :key="order" scope="col" class="px-2 font-normal">
              {{ order }} lobes
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="level in scan.levels"
            :key="level.depth_m"
            class="border-b border-rule text-right"
            :class="level.depth_m === depth && 'bg-act-wash'"
          >
            <th scope="row" class="text-left font-normal">
              <button
                type="button"
                class="num min-h-8"
                :aria-pressed="level.depth_m === depth"
                @click="emit('level', level.depth_m)"
              >
                {{ lengthText(level.depth_m, SIZE_WITH[unit], { digits: unit === 'thou' ? 2 : 1 }) }}
              </button>
            </th>
            <template v-if="isChange">
              <td class="num px-2">{{ small(level.size_m) }}</td>
              <td class="num px-2">{{ small(level.range_m) }}</td>
            </template>
            <template v-else>
              <td class="num px-2">
                {{
                  lengthText(level.circles[0]?.diameter_m ?? 0, SIZE_WITH[unit], {
                    digits: unit === 'thou' ? 5 : 4,
                  })
                }}
              </td>
              <td v-for="circle in level.circles" :key="circle.reference" class="num px-2">
                {{ small(circle.roundness_m) }}
              </td>
            </template>
            <td v-for="order in ORDERS" :key="order" class="num px-2">
              {{ small(level.lobes.find((one) => one.order === order)?.amplitude_m) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="mt-1 text-xs text-ink-soft">
      {{ unit
      }}<template v-if="!isChange"
        >, deviation from the circle of each reference method (ISO 12181-1), lobes as amplitude</template
      ><template v-else>, lobes as amplitude; centres are laid together and size is told by itself</template
      ><template v-if="scan.cylinders.length"
        >. Cylindricity
        <template v-for="(one, at) in scan.cylinders" :key="one.reference"
          >{{ at ? ', ' : '' }}{{ SHORT[one.reference] }}
          <b class="num">{{ small(one.cylindricity_m) }}</b></template
        >
        (ISO 12180-1), each level about its spindle</template
      >.
    </p>
  </section>
</template>
