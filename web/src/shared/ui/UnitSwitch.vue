<script setup lang="ts">
import { chooseUnit, unit } from '@/shared/state/preferences'

const choices = [
  { unit: 'thou', title: 'Small lengths in thou, sizes in inch' },
  { unit: 'µm', title: 'Small lengths in µm, sizes in mm' },
] as const
</script>

<template>
  <div class="no-print flex overflow-hidden rounded border border-ink" role="group" aria-label="Unit">
    <button
      v-for="choice in choices"
      :key="choice.unit"
      type="button"
      class="min-h-9 px-3 text-sm"
      :class="unit === choice.unit ? 'bg-plate text-plate-text font-bold' : 'bg-sheet text-ink-soft'"
      :aria-pressed="unit === choice.unit"
      :title="choice.title"
      @click="chooseUnit(choice.unit)"
    >
      {{ choice.unit }}
    </button>
  </div>
</template>
