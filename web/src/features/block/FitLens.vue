<script setup lang="ts">
import { computed } from 'vue'

import type { BlockView, FitOnDeck, FitsView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

import { useNarrow } from '@/shared/state/useNarrow'

import BlockDeck from './BlockDeck.vue'
import { fitFaces } from './faces'
import FitAside from './FitAside.vue'
import PhoneDeck from './PhoneDeck.vue'

/** Every hole's press on each axis of the level that decides, between the limits of the press wanted. */
const props = defineProps<{ block: BlockView; fits: FitsView; chosen: number | null }>()
const emit = defineEmits<{ choose: [hole: number] }>()
const isNarrow = useNarrow()
/** On a small screen the hole at hand stands right below the deck. */
const here = computed(
  () => props.fits.fits.find((one) => one.hole === props.chosen) ?? props.fits.fits[0] ?? null,
)
const small = (metres: number) => lengthText(metres, unit.value, { signed: true })
const faces = computed(() => fitFaces(props.fits, (one) => (one.press ? small(one.press.value_m) : '–')))
const limits = computed(() => {
  const wanted = props.fits.wanted
  if (!wanted) return 'the card wants no press yet'
  const off = (limit: number | null) =>
    limit === null ? '…' : lengthText(limit, unit.value, { signed: true })
  return `${wanted.school}: dashed least ${off(wanted.least_m)}, solid greatest ${off(wanted.greatest_m)} ${unit.value} on the diameter`
})
const range = (one: FitOnDeck) => one.places.map((place) => place.press.value_m)
</script>

<template>
  <div class="min-w-0">
    <div v-if="isNarrow" class="grid grid-cols-[minmax(0,1fr)] gap-2 pt-1">
      <PhoneDeck :block="block" :faces="faces" :chosen="chosen" @choose="emit('choose', $event)" />
      <div v-if="here">
        <FitAside :fit="here" :wanted="fits.wanted" :is-conversion="fits.is_conversion" />
      </div>
    </div>
    <BlockDeck
      v-else
      class="mt-1 sm:max-h-[42vh]"
      :block="block"
      :faces="faces"
      :chosen="chosen"
      :hour="null"
      @choose="emit('choose', $event)"
    />
    <div class="flex flex-wrap justify-between gap-x-4 pb-1 text-xs text-ink-soft">
      <span>each axis at both of its ends, front at the left</span>
      <span>{{ limits }}</span>
    </div>
    <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Every fit in numbers">
      <table class="w-full min-w-[52rem] border-collapse text-[0.95rem]">
        <thead class="text-sm text-ink-soft">
          <tr class="border-b border-ink">
            <th scope="col" class="py-1 pl-2 text-left font-normal">Hole</th>
            <th scope="col" class="px-2 text-left font-normal">liner</th>
            <th scope="col" class="px-2 text-left font-normal">decides at</th>
            <th scope="col" class="px-2 text-right font-normal">mean press, {{ unit }}</th>
            <th scope="col" class="px-2 text-right font-normal">by axis</th>
            <th scope="col" class="px-2 text-left font-normal">state</th>
            <th scope="col" class="px-2 text-left font-normal">needs</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="one in fits.fits"
            :key="one.hole"
            class="cursor-pointer border-b border-rule"
            :class="one.hole === chosen ? 'bg-act-wash' : 'hover:bg-sheet'"
            @click="emit('choose', one.hole)"
          >
            <th scope="row" class="py-1.5 pl-2 text-left">
              <button type="button" :title="`Choose hole ${one.hole}`">{{ one.hole }}</button>
            </th>
            <td class="px-2">{{ one.liner ?? '–' }}{{ one.is_home ? ', home' : '' }}</td>
            <td class="px-2">{{ one.level || '–' }}</td>
            <td class="num px-2 text-right">
              <template v-if="one.press">
                {{ small(one.press.value_m) }}
                <span class="text-sm text-ink-soft">±{{ uncertaintyText(one.press.expanded_m, unit) }}</span>
              </template>
              <template v-else>–</template>
            </td>
            <td class="num px-2 text-right">
              <template v-if="one.places.length">
                {{ small(Math.min(...range(one))) }} to {{ small(Math.max(...range(one))) }}
              </template>
              <template v-else>–</template>
            </td>
            <td class="px-2 whitespace-nowrap" :class="STATE_TONE[one.state]">
              <StateGate :state="one.state" class="mr-1 inline align-[-3px]" />{{ one.state }}
            </td>
            <td class="px-2"><PhraseText :phrase="one.words" /></td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
