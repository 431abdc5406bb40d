<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import { unit } from '@/shared/state/preferences'
import TextField from '@/shared/ui/TextField.vue'

import { counted, playedBack } from './needle'

/** For a dial that went round more than once: turns and their sign are counted, not guessed. */
const emit = defineEmits<{ counted: [text: string] }>()
const turn = useLocalStorage('vallo-needle-turn', '10')
const turns = ref('0')
const shows = ref('0')
const number = (text: string | number | null) => Number(String(text).replace(',', '.').replace('−', '-')) || 0
const needle = computed(() => ({
  turn: number(turn.value) || 10,
  turns: number(turns.value),
  shows: number(shows.value),
}))
const bare = computed(() => (unit.value === 'thou' ? 'thou' : '× 0.01 mm'))
</script>

<template>
  <details class="mt-1">
    <summary class="min-h-8 cursor-pointer">Count the needle's turns</summary>
    <form class="flex flex-wrap items-end gap-3" @submit.prevent="emit('counted', String(counted(needle)))">
      <div class="w-28"><TextField v-model="turn" label="One turn is" :unit="bare" /></div>
      <div class="w-24"><TextField v-model="turns" label="Turns, − down" /></div>
      <div class="w-24"><TextField v-model="shows" label="and shows" /></div>
      <p class="pb-2">
        passed <b class="num">{{ playedBack(needle, needle.turn) }}</b>
      </p>
      <button type="submit" class="quiet min-h-11">Write it</button>
    </form>
  </details>
</template>
