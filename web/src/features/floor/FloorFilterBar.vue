<script setup lang="ts">
import type { FloorStrip } from '@/api/generated'

import { count, type FloorFilter, SHOWN } from './useFloor'

/** Which jobs are looked at: by a few letters, by what is said of them, those put away. */
const props = defineProps<{ strips: FloorStrip[]; filter: FloorFilter }>()
const { words, show, away, look } = props.filter
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-2">
    <input
      v-model="words"
      type="search"
      class="field max-w-64"
      placeholder="Find: name, number, owner, engine"
      aria-label="Find a job"
    />
    <div role="group" aria-label="Which jobs" class="flex flex-wrap gap-x-1">
      <button
        v-for="[name, label] in SHOWN"
        :key="name"
        type="button"
        class="min-h-11 border-b-2 px-2"
        :class="show === name ? 'border-act font-bold' : 'border-transparent'"
        :aria-pressed="show === name"
        @click="look({ show: name })"
      >
        {{ label }} <span class="num text-ink-soft">{{ count(strips, name) }}</span>
      </button>
    </div>
    <button
      type="button"
      class="ml-auto min-h-11 border-b-2 px-2"
      :class="away ? 'border-act font-bold' : 'border-transparent'"
      :aria-pressed="away"
      @click="look({ away: !away })"
    >
      Put away
    </button>
  </div>
</template>
