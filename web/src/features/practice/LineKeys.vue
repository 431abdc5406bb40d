<script setup lang="ts">
import { DASHES, STROKES, type Tone } from './pictures'

/** Which line is what: by its stroke, not by its colour alone. */
defineProps<{ lines: readonly { name: string; tone: Tone }[] }>()
</script>

<template>
  <ul class="flex flex-wrap gap-x-4 text-sm">
    <li v-for="line in lines" :key="line.name" class="flex items-center gap-2">
      <svg viewBox="0 0 30 8" width="30" height="8" aria-hidden="true">
        <path
          d="M0 4H30"
          :class="STROKES[line.tone]"
          stroke-width="3"
          :stroke-dasharray="DASHES[line.tone]"
        /></svg
      >{{ line.name }}
    </li>
  </ul>
</template>
