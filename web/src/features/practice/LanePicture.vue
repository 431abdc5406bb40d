<script setup lang="ts">
import type { PictureOf } from './pictures'

/** Steps in their order; what a later one undoes is lit. */
defineProps<{ lane: PictureOf<'lane'> }>()
</script>

<template>
  <section :aria-label="lane.title">
    <h2 class="font-bold">{{ lane.title }}</h2>
    <ol class="mt-1 grid gap-1">
      <li
        v-for="(card, index) in lane.cards"
        :key="card.name"
        class="flex flex-wrap items-baseline gap-x-3 rounded-sm border px-3 py-1.5"
        :class="card.lit.length ? 'border-out bg-act-wash' : 'border-rule bg-sheet'"
      >
        <span class="num w-6 text-ink-soft">{{ index + 1 }}</span>
        <span class="font-bold">{{ card.name }}</span>
        <span v-if="card.lit.length" class="text-out">undone by {{ card.lit.join(', ') }}</span>
        <span v-if="card.words" class="text-sm text-ink-soft">{{ card.words }}</span>
      </li>
    </ol>
    <p v-if="lane.left.length" class="mt-2 text-sm text-ink-soft">
      still to place: {{ lane.left.join(', ') }}
    </p>
  </section>
</template>
