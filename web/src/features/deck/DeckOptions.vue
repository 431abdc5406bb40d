<script setup lang="ts">
import { computed } from 'vue'

import type { Aim, DeckOptionView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { endsOf } from './picture'

/** Every aim beside the others: what it takes, and what moves with it. */
const props = defineProps<{ options: DeckOptionView[]; chosen: Aim; least: Aim | null }>()
const emit = defineEmits<{ choose: [Aim] }>()
const small = (metres: number | null | undefined, signed = false) =>
  metres == null ? '–' : lengthText(metres, unit.value, { signed })
const named = computed(() => props.options.find((one) => one.heights.length)?.heights ?? [])
const hasLiners = computed(() => props.options.some((one) => endsOf(one)))
const hasHeight = computed(() => props.options.some((one) => one.faces.some((face) => face.height)))
const hasRatio = computed(() => props.options.some((one) => one.compression_after !== null))
const heightText = (one: DeckOptionView) =>
  one.faces
    .map((face) => (face.height ? lengthText(face.height.value_m, SIZE_WITH[unit.value]) : '–'))
    .join(' · ')
const cutText = (one: DeckOptionView) => {
  const depths = [...new Set(one.faces.map((face) => small(face.depth_m)))]
  return depths.join(' · ')
}
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="w-full min-w-[40rem] border-collapse text-left">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 font-normal">aim</th>
          <th scope="col" class="px-2 text-right font-normal">takes, {{ unit }}</th>
          <th v-if="hasLiners" scope="col" class="px-2 text-right font-normal">liners stand</th>
          <th v-for="one in named" :key="one.name" scope="col" class="px-2 text-right font-normal">
            {{ one.name.replace('piston to ', 'to ').replace('piston ', '') }}
          </th>
          <th v-if="hasRatio" scope="col" class="px-2 text-right font-normal">compression</th>
          <th v-if="hasHeight" scope="col" class="px-2 text-right font-normal">
            block, {{ SIZE_WITH[unit] }}
          </th>
          <th scope="col" class="px-2 font-normal">state</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="one in options"
          :key="one.aim"
          class="border-b border-rule"
          :class="one.aim === chosen && 'bg-act-wash'"
        >
          <th scope="row" class="py-1 font-normal">
            <button
              v-if="!one.why_not"
              type="button"
              class="min-h-11 text-left"
              :class="one.aim === chosen && 'font-bold'"
              :aria-pressed="one.aim === chosen"
              @click="emit('choose', one.aim)"
            >
              {{ one.aim }}
              <span v-if="one.aim === least" class="ml-1 text-sm font-bold text-in">takes least</span>
            </button>
            <span v-else class="block py-2 text-ink-soft">{{ one.aim }}</span>
          </th>
          <td v-if="one.why_not" class="px-2 text-ink-soft" colspan="9">{{ one.why_not }}</td>
          <template v-else>
            <td class="num px-2 text-right text-lg font-bold">{{ cutText(one) }}</td>
            <td v-if="hasLiners" class="num px-2 text-right">
              <template v-if="endsOf(one)"
                >{{ small(endsOf(one)?.low, true) }} to {{ small(endsOf(one)?.high, true) }}</template
              ><template v-else>–</template>
            </td>
            <td
              v-for="height in one.heights"
              :key="height.name"
              class="num px-2 text-right"
              :class="height.keeps === false && 'font-bold text-out'"
            >
              {{ small(height.after_m) }}
            </td>
            <td v-if="hasRatio" class="num px-2 text-right">
              {{ one.compression_after?.toFixed(2) ?? '–' }}
            </td>
            <td v-if="hasHeight" class="num px-2 text-right">{{ heightText(one) }}</td>
            <td class="px-2">
              <span class="flex items-center gap-2"><StateGate :state="one.state" /> {{ one.state }}</span>
            </td>
          </template>
        </tr>
      </tbody>
    </table>
  </div>
</template>
