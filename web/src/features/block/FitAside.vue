<script setup lang="ts">
import { computed } from 'vue'

import type { FitOnDeck, FitsView } from '@/api/generated'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { NUMBER_TONE, STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** The fit of the hole at hand, axis by axis, and the way to all of it. */
const props = defineProps<{ fit: FitOnDeck; wanted: FitsView['wanted']; isConversion: boolean }>()
const places = computed(() => [...props.fit.places].sort((one, other) => one.axis_deg - other.axis_deg))
const AXES: Record<number, string> = { 0: 'along the block', 90: 'across the block' }
</script>

<template>
  <h2 class="text-lg leading-tight">
    Hole {{ fit.hole }}<template v-if="fit.liner"> and {{ fit.liner }}</template>
    <span class="ml-2" :class="STATE_TONE[fit.state]">{{ fit.state }}</span>
  </h2>
  <p v-if="fit.level" class="text-sm text-ink-soft">
    press on the diameter at {{ fit.level }}, the level that decides
  </p>
  <dl v-if="places.length" class="mt-2 border-t border-rule">
    <div
      v-for="place in places"
      :key="place.axis_deg"
      class="flex items-baseline justify-between border-b border-rule py-1.5"
    >
      <dt>{{ AXES[place.axis_deg] ?? `${place.axis_deg}°` }}</dt>
      <dd class="num text-lg" :class="NUMBER_TONE[place.state]">
        {{ lengthText(place.press.value_m, unit, { signed: true }) }}
        <span class="text-sm font-normal text-ink-soft"
          >±{{ uncertaintyText(place.press.expanded_m, unit) }} {{ unit }}</span
        >
      </dd>
    </div>
  </dl>
  <p v-if="wanted" class="mt-2 text-sm text-ink-soft">
    Wanted by the {{ wanted.school }} school: {{ wanted.source || 'no source' }}, {{ wanted.status }}.
  </p>
  <section class="mt-3 rounded bg-plate p-4 text-plate-text" aria-label="What this hole needs">
    <p class="text-sm text-plate-soft">What hole {{ fit.hole }} needs</p>
    <p class="text-lg leading-snug font-bold"><PhraseText :phrase="fit.words" /></p>
    <RouterLink
      class="act mt-2 inline-flex items-center"
      :to="{ name: 'fit', params: { hole: String(fit.hole) }, query: fit.liner ? { liner: fit.liner } : {} }"
      >Open the fit</RouterLink
    >
    <RouterLink
      v-if="isConversion"
      class="mt-2 ml-4 inline-flex items-center text-plate-act underline underline-offset-4"
      :to="{ name: 'conversion', params: { hole: String(fit.hole) } }"
      >The conversion</RouterLink
    >
  </section>
</template>
