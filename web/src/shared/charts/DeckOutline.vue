<script setup lang="ts">
import { computed } from 'vue'

import { usePhone } from '@/shared/state/useNarrow'

import DeckCast from './DeckCast.vue'
import { deckLayout, type LayoutOf, MOST_IN_A_ROW } from './deck'

/** How a card says that a block is built: to compare with the block before anything is written on it. */
const props = defineProps<{
  layout: LayoutOf
  numbering: string
  twelve: string
  bankAngle?: number | null
}>()
const phone = usePhone()
const deck = computed(() => deckLayout(props.layout, MOST_IN_A_ROW[phone.value ? 'phone' : 'bench']))
</script>

<template>
  <figure>
    <svg
      v-legible
      :viewBox="`0 0 ${deck.width} ${deck.height}`"
      class="w-full sm:max-h-80"
      preserveAspectRatio="xMinYMin meet"
      role="img"
      aria-label="Numbering of the holes"
    >
      <DeckCast :layout="deck" />
      <g v-for="hole in deck.holes" :key="hole.number" :transform="`translate(${hole.x} ${hole.y + 18})`">
        <circle :r="deck.boreRadius" class="fill-sheet stroke-ink" stroke-width="1.2" />
        <path d="M0-66v-10" class="stroke-act" stroke-width="3" />
        <text text-anchor="middle" y="9" class="fill-ink font-bold" font-size="26">{{ hole.number }}</text>
      </g>
    </svg>
    <figcaption class="text-sm text-ink-soft">
      ◂ {{ numbering || 'say how the holes are numbered' }} · 12 h, the copper mark:
      {{ twelve || 'say what lies there'
      }}<template v-if="bankAngle"> · banks {{ bankAngle }}° apart</template>
    </figcaption>
  </figure>
</template>
