<script setup lang="ts">
import { computed } from 'vue'

import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { type FitNow, TAKEN, type WhatIf } from './useFit'

/** What if: another aim, other friction, a stronger push; nothing of it is recorded. */
const props = defineProps<{ now: FitNow }>()
const tries = computed(() => props.now.tries.value)
const step = computed(() => (unit.value === 'thou' ? 2.54e-6 : 1e-6))
const aim = computed(() => tries.value.aim_m ?? props.now.fit.value?.wanted?.aim_m ?? null)
const set = (changed: Partial<WhatIf>) => props.now.attempt(changed)
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <section
    class="grid gap-x-6 gap-y-2 border-t border-rule pt-2 sm:grid-cols-2 lg:grid-cols-4"
    aria-label="Try what would be"
  >
    <label v-if="aim !== null" class="grid gap-1 text-sm">
      <span
        >press aimed at <b class="num">{{ lengthText(aim, unit) }} {{ unit }}</b></span
      >
      <input
        type="range"
        class="accent-act"
        min="0"
        max="0.000102"
        :step="step"
        :value="aim"
        @input="set({ aim_m: number($event) })"
      />
    </label>
    <label class="grid gap-1 text-sm">
      <span
        >friction by hand, oiled <b class="num">{{ tries.oiled.toFixed(2) }}</b></span
      >
      <input
        type="range"
        class="accent-act"
        min="0.04"
        max="0.3"
        step="0.01"
        :value="tries.oiled"
        @input="set({ oiled: number($event) })"
      />
    </label>
    <label class="grid gap-1 text-sm">
      <span
        >friction of the pull, at the most <b class="num">{{ tries.pull_greatest.toFixed(2) }}</b></span
      >
      <input
        type="range"
        class="accent-act"
        min="0.08"
        max="0.4"
        step="0.01"
        :value="tries.pull_greatest"
        @input="set({ pull_greatest: number($event) })"
      />
    </label>
    <label class="grid gap-1 text-sm">
      <span
        >push of the hands <b class="num">{{ tries.push_n }} N</b></span
      >
      <input
        type="range"
        class="accent-act"
        min="50"
        max="800"
        step="10"
        :value="tries.push_n"
        @input="set({ push_n: number($event) })"
      />
    </label>
    <p class="text-sm text-ink-soft sm:col-span-2 lg:col-span-4">
      Nothing of this is recorded.
      <button type="button" class="link" @click="set(TAKEN)">As it was taken</button>
    </p>
  </section>
</template>
