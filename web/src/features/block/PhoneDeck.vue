<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView } from '@/api/generated'
import { deckLayout } from '@/shared/charts/deck'
import LimitRing from '@/shared/charts/LimitRing.vue'
import StateGate from '@/shared/charts/StateGate.vue'
import { STATE_TONE } from '@/shared/format/tones'

import type { Face } from './faces'

/** The deck on a small screen: every hole in its row, numbers and words in the size of the page. */
const props = defineProps<{ block: BlockView; faces: Face[]; chosen: number | null }>()
const emit = defineEmits<{ choose: [hole: number] }>()

/** Holes as they stand on the deck, row by row from the top. */
const rows = computed(() => {
  const { holes } = deckLayout(props.block.card)
  const tops = [...new Set(holes.map((one) => one.y))].sort((a, b) => a - b)
  return tops.map((y) =>
    holes
      .filter((one) => one.y === y)
      .sort((a, b) => a.x - b.x)
      .flatMap((one) => props.faces.filter((face) => face.number === one.number)),
  )
})
const headOf = (number: number) => props.block.card.heads.findIndex((head) => head.includes(number))
</script>

<template>
  <div
    class="grid gap-1 rounded-lg border border-rule bg-iron p-1"
    role="group"
    aria-label="Block on its deck"
  >
    <div v-for="(row, at) in rows" :key="at" class="flex">
      <button
        v-for="(face, place) in row"
        :key="face.number"
        type="button"
        class="flex min-w-0 flex-1 flex-col items-center justify-start rounded border-2 px-px py-1 text-center leading-tight"
        :class="[
          face.number === chosen ? 'border-act bg-act-wash' : 'border-transparent',
          place > 0 && headOf(face.number) !== headOf(row[place - 1]?.number ?? 0) && 'ml-1.5',
        ]"
        :aria-label="`Hole ${face.number}: ${face.words || face.state}`"
        :aria-description="face.value"
        :aria-pressed="face.number === chosen"
        @click="emit('choose', face.number)"
      >
        <span class="relative block aspect-square w-full max-w-16 [@media(height<35rem)]:max-w-11">
          <svg viewBox="-54 -54 108 108" class="block w-full" aria-hidden="true">
            <LimitRing
              :number="face.number"
              :least="face.ring.least"
              :greatest="face.ring.greatest"
              :marks="face.ring.marks"
              :expected="face.ring.expected"
              unnumbered
            />
          </svg>
          <b class="absolute inset-0 flex items-center justify-center" aria-hidden="true">{{
            face.number
          }}</b>
        </span>
        <span class="num block text-base font-bold max-[400px]:text-[0.9375rem]" aria-hidden="true">{{
          face.value
        }}</span>
        <StateGate :state="face.state" class="block" aria-hidden="true" />
        <span
          class="block text-xs font-bold [@media(height<35rem)]:hidden"
          :class="face.words ? 'text-ink-soft' : STATE_TONE[face.state]"
          aria-hidden="true"
          >{{ face.words || face.state }}</span
        >
      </button>
    </div>
  </div>
</template>
