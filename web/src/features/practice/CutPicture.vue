<script setup lang="ts">
import { computed } from 'vue'

import { unit } from '@/shared/state/preferences'

import { type PictureOf, smallWords } from './pictures'

/** A ledge in section with the cutter over it: what the collars and the gauge say, not what the metal is. */
const props = defineProps<{ cut: PictureOf<'cut'> }>()
const SCALE = 60_000
const depth = (metres: number) => Math.max(-40, Math.min(150, metres * SCALE))
const ledge = computed(() => 110 + depth(props.cut.ledge_m))
const cutter = computed(() => 110 + depth(props.cut.cutter_m))
const gap = computed(() => Math.max(4, Math.min(44, props.cut.upper_collar_m * SCALE)))
</script>

<template>
  <figure>
    <figcaption class="font-bold">{{ cut.title }}</figcaption>
    <svg
      v-legible
      viewBox="0 0 460 320"
      class="block w-full max-w-[34rem]"
      role="img"
      :aria-label="`${cut.title}: cutter ${smallWords(cut.cutter_m, unit)} ${unit} from where it touched, collar ${cut.locked ? 'locked' : 'open'}`"
    >
      <path :d="`M0 110H120V${ledge}H190V310H0z`" class="fill-iron stroke-ink" stroke-width="2" />
      <path :d="`M460 110H340V${ledge}H270V310H460z`" class="fill-iron stroke-ink" stroke-width="2" />
      <path v-if="cut.burr" :d="`M120 110l8 -9l3 9z M340 110l-8 -9l-3 9z`" class="fill-out" />
      <rect x="214" y="6" width="32" :height="Math.max(60, cutter - 6)" class="fill-part-wash stroke-part" />
      <rect
        x="126"
        :y="cutter - 22"
        width="208"
        height="22"
        class="fill-part-wash stroke-part"
        stroke-width="2"
      />
      <path :d="`M126 ${cutter}h30l-8 9h-22z M334 ${cutter}h-30l8 9h22z`" class="fill-part" />
      <rect x="196" :y="58 - gap" width="68" height="16" class="fill-sheet stroke-ink" stroke-width="2" />
      <rect x="196" y="76" width="68" height="18" class="fill-ink" />
      <path
        v-if="!cut.locked"
        d="M270 84h16m-6 -6l6 6l-6 6"
        class="stroke-out"
        fill="none"
        stroke-width="2.4"
      />
      <text x="456" y="62" text-anchor="end" class="fill-ink-soft" font-size="17">
        to the stop {{ smallWords(cut.upper_collar_m, unit) }} {{ unit }}
      </text>
      <text x="292" y="90" class="fill-ink" font-size="17">{{ cut.locked ? 'locked' : 'collar open' }}</text>
      <text x="8" y="104" class="fill-ink-soft" font-size="17">deck</text>
      <path
        v-if="cut.wanted_m !== null"
        :d="`M96 ${110 + depth(cut.wanted_m ?? 0)}H364`"
        class="stroke-in"
        stroke-width="2.4"
        stroke-dasharray="3 4"
      />
      <path
        v-if="cut.true_m !== null"
        :d="`M96 ${110 + depth(cut.true_m ?? 0)}H364`"
        class="stroke-ink"
        stroke-width="4"
      />
    </svg>
    <p v-if="cut.wanted_m !== null" class="text-sm text-ink-soft">
      dotted: where it ought to be.
      <span v-if="cut.true_m !== null">heavy: where the metal is.</span>
    </p>
  </figure>
</template>
