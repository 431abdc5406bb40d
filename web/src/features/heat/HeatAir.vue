<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'

import { ask } from '@/api/ask'
import { type DropPlanView, readRoomAir, type RoomAirView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { useLoaded } from '@/shared/state/useLoaded'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import type { Tried } from './useHeat'

/** Water on the cold liner against the gap, and the air of the room while dry ice or nitrogen boils off in it. */
const props = defineProps<{ plan: DropPlanView; tried: Tried }>()
const room = useLocalStorage('vallo-heat-room', { kg: 5, room_m3: 60, changes_per_h: 2, release_min: 30 })
const medium = computed(() =>
  props.plan.medium === 'dry ice' || props.plan.medium === 'liquid nitrogen' ? props.plan.medium : null,
)
const get = () =>
  ask(readRoomAir({ query: { ...room.value, medium: medium.value ?? 'dry ice', air_c: props.tried.air_c } }))
const { data: air, refusal, load } = useLoaded<RoomAirView>(get)
watch([room, medium], () => void load(), { deep: true })
const small = (metres: number) => lengthText(metres, unit.value)
const water = computed(() => props.plan.water)
const fills = computed(() => (water.value.gap_m > 0 ? water.value.most_m / water.value.gap_m : null))
const SLIDERS = [
  ['kg', 'boils off', 'kg', 0, 60, 0.5],
  ['room_m3', 'room', 'm³', 5, 600, 5],
  ['changes_per_h', 'air changes an hour', '', 0, 20, 0.5],
  ['release_min', 'in', 'min', 0, 240, 5],
] as const
const WIDE = 520
const x = (seconds: number) => 44 + (seconds / 7200) * (WIDE - 60)
const yO2 = (share: number) => 150 - ((Math.max(0.1, share) - 0.1) / 0.12) * 132
const yCo2 = (share: number) => 150 - (Math.min(0.06, share) / 0.06) * 132
const path = (values: number[], y: (share: number) => number) =>
  (air.value?.times_s ?? [])
    .map((t, at) => `${at ? 'L' : 'M'}${x(t).toFixed(1)} ${y(values[at] ?? 0).toFixed(1)}`)
    .join('')
const bad = computed(() => ({
  oxygen: air.value !== null && air.value.least_oxygen < air.value.oxygen_limit,
  gas: air.value !== null && air.value.most_carbon_dioxide > air.value.shift_limit,
}))
</script>

<template>
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-2">
    <section aria-label="Water on the liner">
      <h2 class="text-lg font-bold">Water on the liner</h2>
      <p class="text-2xl">
        dew point <b class="num">{{ water.dew_c.toFixed(1) }} °C</b>
      </p>
      <template v-if="water.is_wet">
        <p>
          {{ water.is_frost ? 'Frost' : 'Dew' }} of
          <b class="num"
            >{{ water.is_frost ? `${small(water.least_m)} to ${small(water.most_m)}` : small(water.most_m) }}
            {{ unit }}</b
          >
          a side by the time it enters; the gap there is
          <b class="num">{{ small(water.gap_m) }} {{ unit }}</b> a side at least.
        </p>
        <div class="mt-2 h-6 bg-track" aria-hidden="true">
          <div
            class="h-full"
            :class="water.left ? 'bg-unsure' : 'bg-rule'"
            :style="{ width: `${100 * Math.min(1, fills ?? 1)}%` }"
          ></div>
        </div>
        <p class="mt-1">
          <b>{{
            fills === null ? 'No gap is left' : `It would fill ${Math.round(100 * fills)} % of the gap`
          }}</b>{{ water.left ? '.' : ': wiped and dried as it goes in, nothing of it is left.' }}
          <template v-if="tried.enter_s > 0"
            >Each minute brings {{ small((water.most_m / tried.enter_s) * 60) }} {{ unit }} a side at the
            most.</template
          >
        </p>
        <p v-if="water.left && (fills ?? 1) > 0.2" class="font-bold text-unsure">
          A frosted flange does not seat. Bag it before it is frozen, wipe and dry it as it goes in.
        </p>
      </template>
      <p v-else>The liner stays above the dew point: nothing gathers on it.</p>
    </section>
    <section aria-label="Air of the room">
      <h2 class="text-lg font-bold">Air of the room</h2>
      <p v-if="!medium" class="text-ink-soft">A freezer and an oven do not touch it. As if by dry ice:</p>
      <RefusalNote :refusal="refusal" />
      <template v-if="air">
        <p class="flex flex-wrap gap-x-6 text-2xl">
          <span :class="bad.oxygen && 'text-out'"
            >oxygen <b class="num">{{ (100 * air.least_oxygen).toFixed(1) }} %</b></span
          >
          <span :class="bad.gas && 'text-out'"
            >CO₂
            <b class="num">{{ Math.round(1e6 * air.most_carbon_dioxide).toLocaleString('en') }} ppm</b></span
          >
        </p>
        <p class="text-sm text-ink-soft">
          At their worst. Limits of the United States: oxygen {{ (100 * air.oxygen_limit).toFixed(1) }} %, CO₂
          {{ Math.round(1e6 * air.shift_limit).toLocaleString('en') }} ppm over a shift,
          {{ Math.round(1e6 * air.short_limit).toLocaleString('en') }} ppm for a quarter of an hour.
          <b>Local rules first.</b>
        </p>
        <svg
          v-legible
          :viewBox="`0 0 ${WIDE} 178`"
          class="block w-full"
          role="img"
          aria-label="Oxygen and carbon dioxide"
        >
          <path :d="`M44 18V150H${WIDE - 16}`" fill="none" class="stroke-ink" stroke-width="1.4" />
          <path
            :d="`M44 ${yO2(air.oxygen_limit)}H${WIDE - 16}`"
            class="stroke-part"
            stroke-dasharray="6 5"
            stroke-width="1.4"
          />
          <path
            :d="`M44 ${yCo2(air.short_limit)}H${WIDE - 16}`"
            class="stroke-unsure"
            stroke-dasharray="6 5"
            stroke-width="1.4"
          />
          <path :d="path(air.oxygen, yO2)" fill="none" class="stroke-part" stroke-width="3" />
          <path :d="path(air.carbon_dioxide, yCo2)" fill="none" class="stroke-unsure" stroke-width="3" />
          <g font-size="18">
            <text :x="WIDE - 18" :y="yO2(air.oxygen_limit) + 20" text-anchor="end" class="fill-part">
              least oxygen
            </text>
            <text :x="WIDE - 18" :y="yCo2(air.short_limit) + 20" text-anchor="end" class="fill-unsure">
              most CO₂ for ¼ h
            </text>
            <text
              v-for="t in [0, 1800, 3600, 5400]"
              :key="t"
              :x="x(t)"
              y="172"
              text-anchor="middle"
              class="num fill-ink"
            >
              {{ t / 60 }}
            </text>
            <text :x="WIDE - 18" y="172" text-anchor="end" class="fill-ink-soft">120 min</text>
          </g>
        </svg>
      </template>
      <div class="mt-1 grid grid-cols-2 gap-x-6 gap-y-1">
        <label v-for="[name, what, sign, least, most, by] in SLIDERS" :key="name" class="grid"
          ><span class="flex justify-between"
            >{{ what }} <b class="num">{{ room[name] }} {{ sign }}</b></span
          >
          <input
            v-model.number="room[name]"
            type="range"
            class="accent-act"
            :min="least"
            :max="most"
            :step="by"
        /></label>
      </div>
    </section>
  </div>
</template>
