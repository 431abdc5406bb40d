<script setup lang="ts">
import { computed } from 'vue'

import type { LensName } from '@/api/generated'

import type { GridOf } from './cells'

/** What the grid is of. */
const props = defineProps<{ of: GridOf | 'fits'; lenses: readonly LensName[] }>()
const emit = defineEmits<{ show: [of: GridOf | 'fits'] }>()
const KINDS: [GridOf | 'fits', string, LensName | null][] = [
  ['ledges', 'Ledges and flanges', 'counterbore'],
  ['protrusion', 'Protrusion', 'protrusion'],
  ['fits', 'Liners going in', null],
]
/** A construction without a counterbore has no ledges to write down. */
const kinds = computed(() => KINDS.filter(([, , lens]) => lens === null || props.lenses.includes(lens)))
</script>

<template>
  <div class="flex flex-wrap gap-x-2" role="group" aria-label="What is written down">
    <button
      v-for="[name, label] in kinds"
      :key="name"
      type="button"
      class="min-h-11 border-b-2 px-2"
      :class="of === name ? 'border-act font-bold' : 'border-transparent'"
      :aria-pressed="of === name"
      @click="emit('show', name)"
    >
      {{ label }}
    </button>
  </div>
</template>
