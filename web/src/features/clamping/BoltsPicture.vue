<script setup lang="ts">
import { computed } from 'vue'

import type { TighteningView } from '@/api/generated'

import { boltPicture, wayToNext } from './bolts'

/** The bolts over what they hold: done in this round, next, and the way to it. A bolt may be chosen out of turn. */
const props = defineProps<{ one: TighteningView; chosen: number | null }>()
const emit = defineEmits<{ choose: [number] }>()
const picture = computed(() => boltPicture(props.one))
const way = computed(() => wayToNext(props.one, picture.value.bolts))
const moved = computed(
  () =>
    new Set(
      props.one.marks
        .filter((mark) => mark.kind === 'moved on' && mark.turn === props.one.turn)
        .map((mark) => mark.bolt),
    ),
)
const isDone = (bolt: number) => props.one.done.includes(bolt)
const words = (bolt: number) =>
  `Bolt ${bolt}${moved.value.has(bolt) ? ', moved on' : isDone(bolt) ? ', done in this round' : ''}`
const canTurn = (bolt: number) => props.one.state === 'being tightened' && !isDone(bolt)
</script>

<template>
  <svg
    v-legible
    :viewBox="`0 0 ${picture.width} ${picture.height}`"
    class="max-h-[25rem] w-full"
    role="group"
    :aria-label="`Bolts of the ${one.clamp}`"
  >
    <rect
      x="4"
      y="4"
      :width="picture.width - 8"
      :height="picture.height - 8"
      rx="10"
      class="fill-iron stroke-rule"
      stroke-width="2"
    />
    <g v-for="(hole, at) in picture.held" :key="at">
      <circle
        v-if="one.clamp === 'torque plate'"
        :cx="hole.x"
        :cy="hole.y"
        :r="hole.radius"
        class="fill-paper stroke-ink-soft"
        stroke-width="1.5"
      />
      <rect
        v-else
        :x="hole.x - 44"
        y="12"
        width="88"
        :height="picture.height - 24"
        rx="8"
        class="fill-sheet stroke-ink-soft"
        stroke-width="1.5"
      />
      <text :x="hole.x" :y="hole.y + 10" text-anchor="middle" class="fill-ink-soft" font-size="26">
        {{ hole.what }}
      </text>
    </g>
    <polyline
      v-if="way"
      :points="way"
      class="fill-none stroke-act"
      stroke-width="4"
      stroke-dasharray="10 8"
    />
    <g v-for="bolt in picture.bolts" :key="bolt.bolt" :transform="`translate(${bolt.x} ${bolt.y})`">
      <circle
        r="26"
        :class="
          moved.has(bolt.bolt)
            ? 'fill-act-wash stroke-unsure'
            : isDone(bolt.bolt)
              ? 'fill-ink stroke-ink'
              : 'fill-sheet stroke-ink'
        "
        stroke-width="3"
      />
      <text
        text-anchor="middle"
        y="9"
        font-size="26"
        font-weight="700"
        :class="isDone(bolt.bolt) && !moved.has(bolt.bolt) ? 'fill-paper' : 'fill-ink'"
        :aria-label="words(bolt.bolt)"
      >
        {{ bolt.bolt }}
      </text>
      <circle
        v-if="canTurn(bolt.bolt)"
        r="34"
        class="cursor-pointer fill-transparent"
        :class="bolt.bolt === (chosen ?? one.bolt) ? 'stroke-act' : 'stroke-transparent'"
        stroke-width="6"
        role="button"
        tabindex="0"
        :aria-label="`Turn bolt ${bolt.bolt} next`"
        :aria-pressed="bolt.bolt === (chosen ?? one.bolt)"
        @click="emit('choose', bolt.bolt)"
        @keydown.enter="emit('choose', bolt.bolt)"
      />
    </g>
  </svg>
</template>
