<script setup lang="ts">
import { computed } from 'vue'

import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import type { Tried } from './useHeat'

/** What somebody tries: temperatures, the clearance wanted, seconds; the rest of the room and block below. */
const props = defineProps<{ tried: Tried }>()
const t = computed(() => props.tried)
type Name = 'block_c' | 'liner_c' | 'enter_s' | 'home_s' | 'air_c' | 'humidity' | 'block_kg'
const MAIN: readonly (readonly [Name, string, string, number, number, number])[] = [
  ['block_c', 'Block from the oven', '°C', 0, 200, 1],
  ['liner_c', 'Liner from the cold', '°C', -196, 40, 1],
]
const REST: readonly (readonly [Name, string, string, number, number, number])[] = [
  ['enter_s', 'Enters after', 's', 0, 180, 1],
  ['home_s', 'Home in', 's', 0, 60, 1],
  ['air_c', 'Room', '°C', -10, 45, 1],
  ['block_kg', 'Block weighs', 'kg', 5, 500, 5],
]
const wanted = computed({
  get: () => Math.round(t.value.wanted_m * 1e6),
  set: (micrometres) => {
    t.value.wanted_m = micrometres * 1e-6
  },
})
const humidity = computed({
  get: () => Math.round(t.value.humidity * 100),
  set: (percent) => {
    t.value.humidity = percent / 100
  },
})
const minus = (value: number) => String(value).replace('-', '−')
</script>

<template>
  <section class="grid gap-1" aria-label="Hot and cold">
    <label v-for="[name, what, sign, least, most, by] in MAIN" :key="name" class="grid"
      ><span class="flex items-baseline justify-between"
        >{{ what }} <b class="num text-xl">{{ minus(t[name]) }} {{ sign }}</b></span
      >
      <input v-model.number="t[name]" type="range" class="accent-act" :min="least" :max="most" :step="by" />
    </label>
    <label class="grid"
      ><span class="flex items-baseline justify-between"
        >Least clearance to drop freely
        <b class="num text-xl">{{ lengthText(t.wanted_m, unit) }} {{ unit }}</b></span
      >
      <input v-model.number="wanted" type="range" class="accent-act" min="5" max="150" step="1" />
    </label>
    <div class="mt-1 grid grid-cols-2 gap-x-5 gap-y-1 text-sm">
      <label v-for="[name, what, sign, least, most, by] in REST" :key="name" class="grid"
        ><span class="flex justify-between"
          >{{ what }} <b class="num">{{ minus(t[name]) }} {{ sign }}</b></span
        >
        <input v-model.number="t[name]" type="range" class="accent-act" :min="least" :max="most" :step="by" />
      </label>
      <label class="grid content-start"
        ><span class="flex justify-between"
          >Humidity <b class="num">{{ humidity }} %</b></span
        >
        <input v-model.number="humidity" type="range" class="accent-act" min="5" max="100" step="1" />
      </label>
      <div class="grid content-end">
        <label class="flex min-h-8 items-center gap-2"
          ><input v-model="t.wiped" type="checkbox" class="h-5 w-5 accent-act" /> wiped and dried last</label
        >
        <label class="flex min-h-8 items-center gap-2"
          ><input v-model="t.pocket_wet" type="checkbox" class="h-5 w-5 accent-act" /> water in a
          pocket</label
        >
      </div>
    </div>
  </section>
</template>
