<script setup lang="ts">
import type { PhotoMark } from '@/api/generated'

/** A photo with numbered places on it; where it may be marked, a tap sets one and the arrow keys move it. */
const props = defineProps<{ src: string; alt: string; marks: PhotoMark[]; editable?: boolean }>()
const emit = defineEmits<{ change: [marks: PhotoMark[]] }>()

const STEP = 0.01
const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
}
const share = (part: number) => Math.round(Math.min(1, Math.max(0, part)) * 1e4) / 1e4

function set(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  // A key has no place on the photo.
  const byKey = event.detail === 0
  const x = byKey ? 0.5 : share((event.clientX - box.left) / box.width)
  const y = byKey ? 0.5 : share((event.clientY - box.top) / box.height)
  emit('change', [...props.marks, { x, y, words: '' }])
}

function move(index: number, event: KeyboardEvent): void {
  const by = MOVES[event.key]
  if (!by || !props.editable) return
  event.preventDefault()
  const moved = props.marks.map((mark, at) =>
    at === index ? { ...mark, x: share(mark.x + by[0]), y: share(mark.y + by[1]) } : mark,
  )
  emit('change', moved)
}
</script>

<template>
  <div class="relative w-fit">
    <button
      v-if="editable"
      type="button"
      class="block cursor-crosshair"
      title="A tap marks a place; by key the mark is set in the middle, arrow keys move it"
      @click="set"
    >
      <img :src="src" :alt="alt" class="block max-h-[60vh] max-w-full" />
    </button>
    <img v-else :src="src" :alt="alt" class="block max-h-[60vh] max-w-full" />
    <component
      :is="editable ? 'button' : 'span'"
      v-for="(mark, index) in marks"
      :key="index"
      :type="editable ? 'button' : undefined"
      class="num absolute flex h-7 w-7 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full border-2 border-plate-text bg-plate text-sm font-bold text-plate-text"
      :style="{ left: `${mark.x * 100}%`, top: `${mark.y * 100}%` }"
      :title="mark.words"
      :aria-label="editable ? `Mark ${index + 1}: arrow keys move it` : undefined"
      @keydown="move(index, $event)"
      >{{ index + 1 }}</component
    >
  </div>
</template>
