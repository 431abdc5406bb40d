<script setup lang="ts">
import { computed } from 'vue'

import type { WallMarkView } from '@/api/generated'

import { type Frame, xOf, yOf } from './unrolled'

/** One thing found on the wall, drawn by what it is; it runs on over the seam where it has to. */
const props = defineProps<{ mark: WallMarkView; frame: Frame }>()
const emit = defineEmits<{ choose: [] }>()

const kind = computed(() => {
  const { word } = props.mark.finding
  if (word === 'score') return 'score'
  if (word.startsWith('scuffed')) return 'scuff'
  if (word === 'pitted area' || word === 'cavitation line') return 'pits'
  return 'area'
})
const box = computed(() => {
  const { angle_deg: from, until_deg: until, finding } = props.mark
  const x = xOf(props.frame, from)
  const y = yOf(props.frame, finding.from_m ?? 0)
  return {
    x,
    y,
    width: Math.max(10, xOf(props.frame, until) - x),
    height: Math.max(10, yOf(props.frame, finding.until_m ?? 0) - y),
  }
})
/** What runs over the seam at 9 h is drawn on both ends. */
const shifts = computed(() => (props.mark.until_deg > 360 ? [0, -props.frame.width] : [0]))
const dots = computed(() => {
  const { x, y, width, height } = box.value
  return Array.from({ length: Math.min(40, Math.ceil((width * height) / 120) + 6) }, (_, at) => ({
    x: x + ((at * 0.7549 + 0.31) % 1) * width,
    y: y + ((at * 0.5698 + 0.17) % 1) * height,
    r: 1 + ((at * 7) % 3) * 0.7,
  }))
})
const arrows = computed(() => {
  const { x, y, width, height } = box.value
  const up = props.mark.finding.word.endsWith('upwards')
  const count = Math.max(2, Math.round(width / 16))
  return Array.from({ length: count }, (_, at) => {
    const across = x + ((at + 0.5) / count) * width
    const low = y + height * (0.75 + 0.2 * (at % 2))
    const high = y + height * (0.08 + 0.2 * (at % 2))
    const [from, to] = up ? [low, high] : [high, low]
    const head = up ? 7 : -7
    return `M${across} ${from}V${to}m-5 ${head}l5 ${-head}l5 ${head}`
  }).join('')
})
const label = computed(() => {
  const { x, y, width } = box.value
  return kind.value === 'score'
    ? { x: x - 26, y: y + 62 }
    : { x: x + (kind.value === 'scuff' ? width + 14 : -6), y: y + 4 }
})
</script>

<template>
  <g
    role="button"
    tabindex="0"
    :aria-label="`${mark.letter}: ${mark.finding.word}`"
    @click.stop="emit('choose')"
    @keydown.enter.prevent="emit('choose')"
  >
    <g clip-path="url(#wall-clip)">
      <g v-for="shift in shifts" :key="shift" :transform="`translate(${shift} 0)`">
        <template v-if="kind === 'score'">
          <path :d="`M${box.x} ${box.y}V${box.y + box.height}`" class="stroke-ink" stroke-width="6" />
          <path
            v-if="mark.finding.catches"
            :d="
              Array.from(
                { length: Math.max(1, Math.floor(box.height / 22)) },
                (_, at) => `M${box.x - 8} ${box.y + at * 22 + 4}l8 5l8 -5`,
              ).join('')
            "
            class="fill-none stroke-ink"
            stroke-width="1.4"
          />
        </template>
        <template v-else-if="kind === 'pits'">
          <ellipse
            :cx="box.x + box.width / 2"
            :cy="box.y + box.height / 2"
            :rx="box.width / 2 + 6"
            :ry="box.height / 2 + 6"
            class="fill-transparent stroke-ink"
            stroke-width="1.3"
            stroke-dasharray="4 3"
          />
          <circle v-for="(dot, at) in dots" :key="at" :cx="dot.x" :cy="dot.y" :r="dot.r" class="fill-ink" />
        </template>
        <path v-else-if="kind === 'scuff'" :d="arrows" class="fill-none stroke-ink" stroke-width="1.6" />
        <rect
          v-else
          :x="box.x"
          :y="box.y"
          :width="box.width"
          :height="box.height"
          class="stroke-ink"
          :class="mark.finding.word === 'bright area' ? 'fill-paper' : 'fill-ink'"
          fill-opacity="0.28"
          stroke-width="1.2"
          stroke-dasharray="2 3"
        />
      </g>
    </g>
    <circle :cx="label.x" :cy="label.y" r="13" class="fill-ink stroke-paper" stroke-width="1.5" />
    <text
      :x="label.x"
      :y="label.y + 5"
      text-anchor="middle"
      font-size="14"
      font-weight="700"
      class="fill-paper"
      aria-hidden="true"
    >
      {{ mark.letter }}
    </text>
  </g>
</template>
