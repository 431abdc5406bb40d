<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'

import type { Operation } from '@/api/generated'
import { READ_BACKS, readBack } from '@/shared/state/readBack'

import ClockChip from './ClockChip.vue'
import UnitSwitch from './UnitSwitch.vue'

/** The head of a bench: the way out, the job and what is read, where to go, how readings are told back. */
defineProps<{
  to: RouteLocationRaw
  out: string
  job: string
  what: string
  places: string
  short?: boolean
  /** What is done at this bench: its working clock stands in the head. */
  clock?: Operation
}>()
</script>

<template>
  <header class="border-b-2 border-ink px-4 py-2">
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <RouterLink :to="to" class="quiet inline-flex min-h-11 items-center">{{ out }}</RouterLink>
      <b class="text-lg">{{ job }}</b>
      <span class="text-ink-soft" :class="short && 'max-sm:hidden'">{{ what }}</span>
      <nav
        class="order-last flex w-full gap-1 overflow-x-auto empty:hidden xl:order-none xl:w-auto"
        :aria-label="places"
      >
        <slot />
      </nav>
      <ClockChip v-if="clock" class="ml-auto" :operation="clock" :class="short && 'max-sm:hidden'" />
      <label class="text-sm text-ink-soft" :class="[short && 'max-sm:hidden', !clock && 'ml-auto']"
        >told back by
        <select v-model="readBack" class="rounded border border-rule bg-sheet px-2 py-2 text-ink">
          <option v-for="way in READ_BACKS" :key="way" :value="way">{{ way }}</option>
        </select>
      </label>
      <UnitSwitch :class="short && 'max-sm:ml-auto'" />
    </div>
    <slot name="below" />
  </header>
</template>
