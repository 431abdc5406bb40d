<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, HoleView } from '@/api/generated'
import { deckLayout } from '@/shared/charts/deck'
import DeckCast from '@/shared/charts/DeckCast.vue'
import LimitRing from '@/shared/charts/LimitRing.vue'
import StateGate from '@/shared/charts/StateGate.vue'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'

import type { Lens } from '@/shared/subjects'
import { meanDepth, type Preview, ringOf } from '@/shared/charts/rings'
import { FILL_TONE } from '@/shared/format/tones'

/** The block seen on its deck, to the scale of its own pitch and bore. */
const digits = useGaugeDigits()
const props = defineProps<{
  block: BlockView
  lens: Lens
  chosen: number | null
  hour: number | null
  preview: Preview | null
}>()
const emit = defineEmits<{ choose: [hole: number] }>()

const layout = computed(() => deckLayout(props.block.card))
const holes = computed(() =>
  layout.value.holes.map((place) => {
    const hole = props.block.holes.find((one) => one.number === place.number)
    return { ...place, hole, ring: hole ? ringOf(hole, props.lens, props.preview) : null }
  }),
)

function valueText(hole: HoleView): string {
  if (props.lens === 'counterbore') {
    const depth = meanDepth(hole)
    return depth === null
      ? '–'
      : lengthText(depth, SIZE_WITH[unit.value], { digits: digits.size('counterbore depth') })
  }
  if (hole.mean_m !== null) {
    return lengthText(hole.mean_m, unit.value, {
      signed: true,
      limits: [hole.least_m, hole.greatest_m],
      digits: digits.small('protrusion'),
    })
  }
  return '–'
}

/** Gate and word stand in the middle together; letters of this face are about 7.4 wide. */
const gateLeft = (state: string) => -(31 + state.length * 7.4) / 2
</script>

<template>
  <svg
    :viewBox="`0 0 ${layout.width} ${layout.height}`"
    class="block max-h-[46vh] w-full"
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
        <g v-if="one.hole && one.ring" :transform="`translate(${one.x} ${one.y})`" :data-hole="one.number">
          <circle :r="layout.boreRadius" class="fill-none stroke-rule" stroke-width="1" />
          <LimitRing
            :number="one.number"
            :least="one.ring.least"
            :greatest="one.ring.greatest"
            :marks="one.ring.marks"
            :expected="one.ring.expected"
            :chosen-hour="one.number === chosen ? hour : null"
          />
          <text y="80" text-anchor="middle" class="fill-ink font-mono font-bold" font-size="19">
            {{ valueText(one.hole) }}
          </text>
          <template v-if="lens === 'protrusion'">
            <StateGate :state="one.hole.state" :x="gateLeft(one.hole.state)" :y="90" />
            <text
              :x="gateLeft(one.hole.state) + 31"
              y="103"
              :class="FILL_TONE[one.hole.state]"
              font-size="14"
              class="font-bold"
            >
              {{ one.hole.state }}
            </text>
          </template>
          <text v-else y="103" text-anchor="middle" class="fill-ink-soft" font-size="13">
            {{
              one.hole.parts.ledge_depths.length ? `${one.hole.parts.ledge_depths.length} read` : 'not read'
            }}
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
        :aria-label="`Hole ${one.number}: ${one.hole?.state}`"
        :aria-description="one.hole ? valueText(one.hole) : ''"
        :aria-pressed="one.number === chosen"
        @click="emit('choose', one.number)"
        @keydown.enter.prevent.stop="emit('choose', one.number)"
        @keydown.space.prevent.stop="emit('choose', one.number)"
      />
    </g>
  </svg>
</template>
