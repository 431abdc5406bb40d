<script setup lang="ts">
import type { SizingsView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** Size the block or size the sleeve, side by side on the same readings. */
defineProps<{ sizings: SizingsView }>()
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
</script>

<template>
  <section aria-label="Size the block or the sleeve">
    <table class="w-full border-collapse">
      <thead class="text-ink-soft">
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 text-left font-normal">way</th>
          <th scope="col" class="px-2 text-right font-normal">off at the most, {{ unit }}</th>
          <th scope="col" class="px-2 text-right font-normal">stays uneven</th>
          <th scope="col" class="px-2 text-right font-normal">wall left</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in sizings.ways" :key="one.sizing" class="border-b border-rule">
          <th scope="row" class="py-1 text-left" :class="!one.is_chosen && 'font-normal'">
            {{ one.sizing }}<span v-if="one.is_chosen" class="font-normal text-ink-soft">, the job’s</span>
          </th>
          <td class="num px-2 text-right">
            <template v-if="one.takes_off"
              >{{ lengthText(one.takes_off.value_m, unit) }}
              <span class="text-ink-soft"
                >±{{ uncertaintyText(one.takes_off.expanded_m, unit) }}</span
              ></template
            >
            <template v-else>nothing</template>
          </td>
          <td class="num px-2 text-right">{{ lengthText(one.egg_m, unit) }}</td>
          <td class="num px-2 text-right" :class="one.is_thin && 'font-bold text-out'">
            {{ one.wall_m === null ? '–' : size(one.wall_m) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="mt-1"><PhraseText :phrase="sizings.says" /></p>
  </section>
</template>
