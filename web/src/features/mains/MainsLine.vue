<script setup lang="ts">
import { computed } from 'vue'

import type { MainLineView } from '@/api/generated'
import { clockText } from '@/shared/format/clock'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

import { LINE, linePoints, lineScale } from './picture'

/** The line of the mains from the side and from above, far enlarged: bores, their ±, what is allowed, where they stood. */
const props = defineProps<{ line: MainLineView }>()
const scale = computed(() => lineScale(props.line.rows, props.line.within_m))
const SIDES = [
  { side: 'upright', words: 'from the side, 12 h up' },
  { side: 'across', words: 'from above, 3 h up' },
] as const
const small = (metres: number) => lengthText(metres, unit.value)
const allowed = computed(() => (props.line.within_m ?? 0) * scale.value)
const inner = computed(() => props.line.rows.slice(1, -1))
const moved = (at: number) => inner.value[at]?.moved ?? null
const TONE: Record<string, string> = { in: 'text-in', out: 'text-out' }
const reads = computed(() => props.line.missing[0] ?? 'main-1')
</script>

<template>
  <section aria-labelledby="line-title">
    <h2 id="line-title" class="flex items-baseline gap-2 text-lg">
      Their line
      <b v-if="line.rows.length" :class="TONE[line.state] ?? 'text-unsure'">{{ line.state }}</b>
    </h2>
    <p :class="line.rows.length ? '' : 'text-unsure'"><PhraseText :phrase="line.says" /></p>
    <div v-if="line.rows.length" class="grid gap-x-6 sm:grid-cols-2">
      <figure v-for="one in SIDES" :key="one.side">
        <svg
          v-legible
          :viewBox="`0 0 ${LINE.width} ${LINE.height}`"
          class="w-full"
          role="img"
          :aria-label="`Line of the mains ${one.words}`"
        >
          <rect
            v-if="line.within_m !== null"
            x="0"
            :y="LINE.height / 2 - allowed"
            :width="LINE.width"
            :height="2 * allowed"
            class="fill-track"
          />
          <path :d="`M0 ${LINE.height / 2}H${LINE.width}`" class="stroke-ink" stroke-width="1.5" />
          <g v-for="(point, at) in linePoints(line.rows, one.side, scale)" :key="at">
            <circle
              v-if="point.was !== null"
              :cx="point.x"
              :cy="point.was"
              r="9"
              class="fill-none stroke-ink-soft"
              stroke-width="2"
            />
            <path :d="`M${point.x} ${point.from}V${point.to}`" class="stroke-ink" stroke-width="4" />
            <circle
              :cx="point.x"
              :cy="point.y"
              r="8"
              :class="line.rows[at]?.state === 'out' ? 'fill-out' : 'fill-ink'"
            />
            <text
              :x="point.x + 16"
              :y="point.y < 34 ? point.y + 24 : point.y - 10"
              class="fill-ink"
              font-size="21"
            >
              {{ at + 1 }}
            </text>
          </g>
        </svg>
        <figcaption class="text-sm text-ink-soft">{{ one.words }}</figcaption>
      </figure>
    </div>
    <p v-for="(row, at) in inner" :key="row.part">
      Main {{ row.part.replace('main-', '') }}
      <b class="num">{{ small(row.off.value_m) }} ±{{ uncertaintyText(row.off.expanded_m, unit) }}</b>
      {{ unit }} off<template v-if="row.hour !== null">, towards {{ clockText(row.hour) }}</template
      ><template v-if="moved(at)"
        >; it went
        <b class="num"
          >{{ small(moved(at)?.value_m ?? 0) }} ±{{ uncertaintyText(moved(at)?.expanded_m ?? 0, unit) }}</b
        >
        since it was read before</template
      >.
    </p>
    <RouterLink
      class="link text-sm"
      :to="{ name: 'survey', params: { quantity: 'line-of-the-mains', part: reads } }"
      >Sweep {{ line.rows.length ? 'them again' : 'them' }}</RouterLink
    >
  </section>
</template>
