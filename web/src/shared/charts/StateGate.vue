<script setup lang="ts">
import type { State } from '@/api/generated'
import { STATE_TONE } from '@/shared/format/tones'

/** Two bars for the limits and a mark for the reading: between, on a bar, outside, hollow under a turn back, or not there. */
defineProps<{ state: State; x?: number; y?: number }>()
</script>

<template>
  <svg
    :class="STATE_TONE[state]"
    :x="x"
    :y="y"
    width="26"
    height="16"
    viewBox="0 0 26 16"
    role="img"
    :aria-label="state"
  >
    <g fill="none" stroke="currentColor" stroke-width="2.2">
      <path :d="state === 'read again' ? 'M9 6v9.5M21 6v9.5' : 'M9 1v14M21 1v14'" />
      <circle v-if="state === 'in'" cx="15" cy="8" r="3.6" fill="currentColor" stroke="none" />
      <g v-else-if="state === 'read again'">
        <circle cx="15" cy="11" r="2.9" stroke-width="1.9" />
        <path d="M20.5 4.6C18.5.6 12.5.4 10.2 3.4" stroke-width="1.7" />
        <path d="M6.6 1.6 12 2.6 8.6 6.6z" fill="currentColor" stroke="none" />
      </g>
      <circle v-else-if="state === 'cannot tell'" cx="9" cy="8" r="3.6" class="fill-paper" />
      <path
        v-else-if="state === 'out'"
        d="M3.6 3.6 8 8l-4.4 4.4L-.8 8z"
        transform="translate(1 0)"
        fill="currentColor"
        stroke="none"
      />
    </g>
    <path v-if="state === 'cannot tell'" d="M9 1v14" stroke="currentColor" stroke-width="2.2" />
  </svg>
</template>
