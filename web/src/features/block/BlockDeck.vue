<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView } from '@/api/generated'
import { deckLayout, MOST_IN_A_ROW } from '@/shared/charts/deck'
import DeckCast from '@/shared/charts/DeckCast.vue'
import LimitRing from '@/shared/charts/LimitRing.vue'
import StateGate from '@/shared/charts/StateGate.vue'
import { FILL_TONE } from '@/shared/format/tones'
import { usePhone } from '@/shared/state/useNarrow'

import type { Face } from './faces'

/** The block seen on its deck, to the scale of its own pitch and bore. */
const props = defineProps<{ block: BlockView; faces: Face[]; chosen: number | null; hour: number | null }>()
const emit = defineEmits<{ choose: [hole: number] }>()

const phone = usePhone()
const layout = computed(() => deckLayout(props.block.card, MOST_IN_A_ROW[phone.value ? 'phone' : 'bench']))
const holes = computed(() =>
  layout.value.holes.map((place) => ({
    ...place,
    face: props.faces.find((one) => one.number === place.number) ?? null,
  })),
)

/** Gate and word stand in the middle together; letters of this face are about 7.4 wide. */
const gateLeft = (state: string) => -(31 + state.length * 7.4) / 2
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${layout.width} ${layout.height}`"
    class="block w-full"
    preserveAspectRatio="xMidYMin meet"
    aria-label="Block on its deck"
  >
    <DeckCast :layout="layout" />
    <g v-for="one in holes" :key="one.number">
      <g aria-hidden="true">
        <rect
          :x="one.x - layout.pitch / 2 + 2"
          :y="one.top"
          :width="layout.pitch - 4"
          :height="layout.cell"
          rx="8"
          :class="one.number === chosen ? 'fill-act-wash stroke-act' : 'fill-transparent'"
          stroke-width="2.5"
        />
        <g v-if="one.face" :transform="`translate(${one.x} ${one.y})`" :data-hole="one.number">
          <circle :r="layout.boreRadius" class="fill-none stroke-rule" stroke-width="1" />
          <LimitRing
            :number="one.number"
            :least="one.face.ring.least"
            :greatest="one.face.ring.greatest"
            :marks="one.face.ring.marks"
            :expected="one.face.ring.expected"
            :chosen-hour="one.number === chosen ? hour : null"
          />
          <text y="80" text-anchor="middle" class="fill-ink font-mono font-bold" font-size="19">
            {{ one.face.value }}
          </text>
          <template v-if="!one.face.words">
            <StateGate :state="one.face.state" :x="gateLeft(one.face.state)" :y="90" />
            <text
              :x="gateLeft(one.face.state) + 31"
              y="103"
              :class="FILL_TONE[one.face.state]"
              font-size="14"
              class="font-bold"
            >
              {{ one.face.state }}
            </text>
          </template>
          <text v-else y="103" text-anchor="middle" class="fill-ink-soft" font-size="14">
            {{ one.face.words }}
          </text>
        </g>
      </g>
      <!-- The button lies over the drawing, so that its name is not mixed with the numbers drawn. -->
      <rect
        class="cursor-pointer fill-transparent"
        role="button"
        tabindex="0"
        :x="one.x - layout.pitch / 2 + 2"
        :y="one.top"
        :width="layout.pitch - 4"
        :height="layout.cell"
        rx="8"
        :aria-label="`Hole ${one.number}: ${one.face?.state}`"
        :aria-description="one.face?.value ?? ''"
        :aria-pressed="one.number === chosen"
        @click="emit('choose', one.number)"
        @keydown.enter.prevent.stop="emit('choose', one.number)"
        @keydown.space.prevent.stop="emit('choose', one.number)"
      />
    </g>
  </svg>
</template>
