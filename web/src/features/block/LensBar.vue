<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, Quantity } from '@/api/generated'
import { lengthText, otherSmall, SIZE_WITH, type SmallUnit } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useNarrow } from '@/shared/state/useNarrow'

import { isClockLens, type Lens, lensOf } from '@/shared/subjects'

import GaugeChip from './GaugeChip.vue'

/** Which lens the rings show, and the limits they are held against. */
const props = defineProps<{ block: BlockView; lens: Lens; quantity: Quantity | null; hole: number | null }>()
const emit = defineEmits<{ choose: [lens: Lens]; of: [quantity: Quantity] }>()
const offered = computed(() => props.block.lenses.map((one) => lensOf(one.name)))
const several = computed(() => props.block.lenses.find((one) => one.name === props.lens)?.quantities ?? [])

function windowText(least: number | null, greatest: number | null, as: SmallUnit): string {
  const text = (value: number | null) => (value === null ? '…' : lengthText(value, as))
  return `${text(least)} – ${text(greatest)}`
}

function limitsIn(as: SmallUnit): string {
  const card = props.block.card
  const parts = [
    `limits ${windowText(card.least_without_m, card.greatest_without_m, as)}`,
    `on a shim ${windowText(card.least_with_m, card.greatest_with_m, as)}`,
  ]
  if (card.variation_m !== null) parts.push(`round ${lengthText(card.variation_m, as)}`)
  if (card.neighbour_m !== null) parts.push(`neighbours ${lengthText(card.neighbour_m, as)}`)
  return `${as} · ${parts.join(' · ')}`
}
const limits = computed(() => (isNarrow.value ? inShort.value : limitsIn(unit.value)))
const isNarrow = useNarrow()
const inShort = computed(() => {
  const card = props.block.card
  const shim = `on a shim ${windowText(card.least_with_m, card.greatest_with_m, unit.value)}`
  return `${unit.value} · ${windowText(card.least_without_m, card.greatest_without_m, unit.value)}, ${shim}`
})
/** A bore is read at its own bench, place by place. */
const boreBench = computed(() =>
  props.lens === 'bore' && props.quantity !== null
    ? {
        name: 'survey',
        params: {
          job: props.block.job.job_id,
          quantity: props.quantity,
          part: `hole-${props.hole ?? props.block.holes[0]?.number ?? 1}`,
        },
      }
    : null,
)
const averages = computed(() => props.block.heads.filter((head) => head.rule !== null))
</script>

<template>
  <div
    class="flex items-baseline gap-x-3 gap-y-1 max-lg:items-center max-lg:gap-x-2 max-lg:pb-1 lg:flex-wrap"
  >
    <label v-if="isNarrow" class="text-sm">
      <span class="sr-only">Lens</span>
      <select
        :value="lens"
        class="h-11 rounded border border-rule bg-sheet px-2 font-bold"
        @change="emit('choose', ($event.target as HTMLSelectElement).value as Lens)"
      >
        <option v-for="one in offered" :key="one.name" :value="one.name">{{ one.label }}</option>
      </select>
    </label>
    <nav v-else aria-label="Lens" class="flex flex-wrap gap-x-4">
      <button
        v-for="one in offered"
        :key="one.name"
        type="button"
        class="min-h-9"
        :class="one.name === lens ? 'border-b-3 border-act font-bold' : 'text-ink-soft'"
        :aria-pressed="one.name === lens"
        :title="`Key ${one.key}`"
        @click="emit('choose', one.name)"
      >
        {{ one.label }}
      </button>
    </nav>
    <RouterLink v-if="boreBench" :to="boreBench" class="quiet inline-flex items-center text-sm" title="Key B"
      >Bench</RouterLink
    >
    <RouterLink
      v-else-if="isClockLens(lens) && !isNarrow"
      :to="{ name: 'bench', params: { job: block.job.job_id, lens } }"
      class="quiet inline-flex items-center text-sm"
      title="Key B"
      >Bench</RouterLink
    >
    <GaugeChip v-if="quantity && !isNarrow" :block="block" :quantity="quantity" />
    <RouterLink
      v-if="isClockLens(lens) && isNarrow"
      class="quiet inline-flex shrink-0 items-center text-sm max-lg:min-h-11"
      :to="{
        name: 'grid',
        params: { job: block.job.job_id },
        query: { of: lens === 'protrusion' ? 'protrusion' : 'ledges' },
      }"
      title="Key G"
      >All at once</RouterLink
    >
    <p
      v-if="lens === 'protrusion'"
      class="ml-auto text-sm leading-tight text-ink-soft max-lg:text-right"
      :title="limitsIn(otherSmall(unit))"
    >
      {{ limits }}
    </p>
    <p v-else-if="lens === 'counterbore'" class="ml-auto text-sm text-ink-soft">
      depths in {{ SIZE_WITH[unit] }} from the deck, the rest in {{ unit }} · dashed: least depth for its
      liner
    </p>
    <div v-else-if="several.length > 1" class="ml-auto flex gap-4" role="group" aria-label="Which bore">
      <button
        v-for="one in several"
        :key="one"
        type="button"
        class="min-h-9 text-sm"
        :class="one === quantity ? 'font-bold underline underline-offset-8' : 'text-ink-soft'"
        :aria-pressed="one === quantity"
        @click="emit('of', one)"
      >
        {{ one }}
      </button>
    </div>
    <template v-if="lens === 'protrusion'">
      <p v-for="head in averages" :key="head.holes.join()" class="w-full text-right text-sm text-ink-soft">
        holes {{ head.holes.join(', ') }} average
        {{ lengthText(head.rule?.value_m ?? 0, unit, { signed: true }) }}: {{ head.rule?.state }}
      </p>
    </template>
  </div>
</template>
