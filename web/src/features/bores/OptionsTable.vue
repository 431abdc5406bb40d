<script setup lang="ts">
import type { HoleOnLadder, OptionView } from '@/api/generated'
import { NUMBER_TONE } from '@/shared/format/tones'

/** Everything a bore can be given, side by side: what it needs, what it leaves, what cannot be undone. */
defineProps<{ hole: HoleOnLadder }>()
const emit = defineEmits<{ choose: [option: OptionView] }>()
const DOES: Record<string, string> = {
  in: 'does it',
  out: 'does not do',
  'cannot tell': 'cannot be told',
  'not measured': 'last resort',
  'read again': 'read again',
}
</script>

<template>
  <div class="relative overflow-x-auto">
    <table
      class="w-full min-w-[44rem] border-collapse text-sm"
      :aria-label="`What bore ${hole.hole} can be given`"
    >
      <thead>
        <tr class="border-b border-ink-soft text-left text-ink-soft">
          <th scope="col" class="py-1 font-normal">bore {{ hole.hole }}</th>
          <th scope="col" class="px-2 font-normal">does it do</th>
          <th scope="col" class="px-2 font-normal">needs</th>
          <th scope="col" class="px-2 font-normal">leaves</th>
          <th scope="col" class="px-2 font-normal">cannot be undone</th>
          <th scope="col"><span class="sr-only">choose</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="option in hole.options" :key="option.title" class="border-b border-rule align-top">
          <th scope="row" class="py-1 pr-2 text-left font-bold">{{ option.title }}</th>
          <td class="px-2 py-1 font-bold" :class="NUMBER_TONE[option.state]">{{ DOES[option.state] }}</td>
          <td class="px-2 py-1">{{ option.needs.join('; ') }}</td>
          <td class="px-2 py-1">{{ option.leaves.join('; ') }}</td>
          <td class="px-2 py-1">{{ option.irreversible }}</td>
          <td class="py-1 text-right">
            <button type="button" class="quiet" @click="emit('choose', option)">Choose</button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
