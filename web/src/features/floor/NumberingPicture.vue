<script setup lang="ts">
import { computed } from 'vue'

/** Seen on the deck, number one at the left: compare with the block before anything is written on it. */
const props = defineProps<{ holes: number; numbering: string; twelve: string }>()
const numbers = computed(() => Array.from({ length: props.holes }, (_, index) => index + 1))
</script>

<template>
  <svg :viewBox="`0 0 ${holes * 60 + 40} 130`" class="w-full" role="img" aria-label="Numbering of the holes">
    <rect x="4" y="22" :width="holes * 60 + 32" height="84" rx="12" class="fill-iron stroke-rule" />
    <g v-for="number in numbers" :key="number" :transform="`translate(${number * 60 - 10} 64)`">
      <circle r="25" class="fill-sheet stroke-ink" />
      <path d="M0-25v-8" class="stroke-act" stroke-width="2.5" />
      <text text-anchor="middle" y="7" class="fill-ink font-bold" font-size="20">{{ number }}</text>
    </g>
    <text x="8" y="15" class="fill-ink-soft" font-size="12">12 h: {{ twelve }}</text>
    <text x="8" y="124" class="fill-ink-soft" font-size="12">◂ {{ numbering }}</text>
  </svg>
</template>
