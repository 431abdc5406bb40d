<script setup lang="ts">
import { computed } from 'vue'

import { unit } from '@/shared/state/preferences'

import { type PictureOf, smallWords } from './pictures'

/** A cold liner over a warm hole: what room is left between them at this second of the practice clock. */
const props = defineProps<{ drop: PictureOf<'drop'>; seconds: number }>()
const at = computed(() => Math.max(0, props.seconds - props.drop.from_s))
const clear = computed(() => {
  const { times_s: times, clear_m: values } = props.drop
  if (!times.length) return null
  let after = times.findIndex((time) => time > at.value)
  if (after < 0) after = times.length - 1
  const before = Math.max(0, after - 1)
  const [t0 = 0, t1 = 1] = [times[before], times[after]]
  const share = t1 > t0 ? Math.min(1, Math.max(0, (at.value - t0) / (t1 - t0))) : 1
  return (values[before] ?? 0) + ((values[after] ?? 0) - (values[before] ?? 0)) * share
})
/** The gap drawn many times too wide: a hair of it is four thousandths. */
const half = computed(() => Math.max(-6, Math.min(34, (clear.value ?? 0) * 200_000)))
const top = computed(() => 20 + props.drop.entered * 150)
</script>

<template>
  <figure>
    <figcaption class="flex flex-wrap justify-between gap-x-3 font-bold">
      {{ drop.title }}
      <span v-if="clear !== null" class="num text-3xl" :class="clear <= 0 ? 'text-out' : ''" aria-live="off">
        {{ smallWords(clear, unit) }} {{ unit }}
      </span>
    </figcaption>
    <svg
      v-legible
      viewBox="0 0 460 340"
      class="mx-auto block max-h-[48vh] w-full max-w-[32rem]"
      role="img"
      :aria-label="`${drop.title}: block ${drop.block}, liner ${drop.liner}, ${clear === null ? 'not over the hole yet' : `room ${smallWords(clear, unit)} ${unit}`}`"
    >
      <path :d="`M0 170H${150 - half}V330H0z M460 170H${310 + half}V330H460z`" class="fill-iron stroke-ink" />
      <g :transform="`rotate(${drop.tilt_deg * 6} 230 ${top})`">
        <path
          :d="`M140 ${top}H320V${top + 14}H308V${top + 146}H292V${top + 14}H168V${top + 146}H152V${top + 14}H140z`"
          class="fill-part-wash stroke-part"
          stroke-width="2"
        />
      </g>
      <text x="10" y="196" class="fill-ink" font-size="18">block {{ drop.block }}</text>
      <text x="230" :y="top - 6" text-anchor="middle" class="fill-part" font-size="18">
        liner {{ drop.liner }}
      </text>
    </svg>
    <p class="text-sm text-ink-soft">The gap is drawn a thousand times too wide.</p>
  </figure>
</template>
