<script setup lang="ts">
import { computed } from 'vue'

import type { Quantity } from '@/api/generated'
import { featureOf } from '@/shared/state/catalogue'

/** Where the gauge is held now, seen from above: along an axis, or at a clock position counted from the front. */
const props = defineProps<{ axis: number; hour: number | null; quantity: Quantity }>()
const isHour = computed(() => props.hour !== null)
/** A main bore is seen along the crank: it has no front, but a joint where its cap sits. */
const marks = computed(() => featureOf(props.quantity)?.axis_names ?? ['front', '90°'])
</script>

<template>
  <g font-size="13">
    <circle r="40" class="fill-iron stroke-ink-soft" />
    <circle r="30" class="fill-paper stroke-ink-soft" />
    <text x="-50" y="5" text-anchor="end" class="fill-ink-soft">{{ marks[0] }}</text>
    <text y="-43" text-anchor="middle" font-size="13" class="fill-ink-soft">{{ marks[1] }}</text>
    <g :transform="`rotate(${axis})`" data-axis>
      <path :d="isHour ? 'M-30 0H0' : 'M-30 0H30'" class="stroke-act" stroke-width="5" />
      <circle cx="-30" r="5" class="fill-act" />
      <circle v-if="!isHour" cx="30" r="5" class="fill-act" />
    </g>
    <text x="52" y="5" class="fill-act" font-weight="700">{{ isHour ? `${hour}h` : `${axis}°` }}</text>
  </g>
</template>
