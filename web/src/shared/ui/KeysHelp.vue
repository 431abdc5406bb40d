<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { ref } from 'vue'

import { LENSES } from '@/shared/subjects'
import { isTyping } from '@/shared/ui/typing'

import DialogFrame from './DialogFrame.vue'

const open = ref(false)
const keys = [
  ['0–9 + − .', 'start a reading, wherever you are on the block'],
  ['5 6h 3.2', 'hole 5 at 6 h reads 3.2; what is left out stays as it stands'],
  ['#5 Enter', 'choose hole 5; bare digits at a position that is shown are always a reading'],
  ['[  ]', 'one position back, one on, round the clock'],
  ['← →', 'the hole before, the hole after'],
  ['Enter', 'take the reading'],
  ['Esc', 'leave the entry line; what is typed stays'],
  ['Ctrl+Z', 'undo: take back what the button names'],
  ['Ctrl+Enter', 'the copper button: what this hole needs'],
  [LENSES.map((lens) => lens.key).join('  '), `lens: ${LENSES.map((lens) => lens.what).join(', ')}`],
  ['W', 'why: the arithmetic behind the state'],
  ['T', 'the whole tape'],
  ['B', 'the bench: one position at a time, space takes what the gauge says'],
  ['G', 'all holes in one grid: type, Tab, type'],
  ['↑ ↓ ← →', 'measuring a bore or deck: the place above, below or beside; R reads it again'],
  ['← → space', 'practice: tilt the gauge, shift for ten times as far; take what it shows'],
  ['?', 'this list'],
] as const

onKeyStroke('?', (event) => {
  if (!isTyping(event)) open.value = true
})
</script>

<template>
  <button
    type="button"
    class="no-print fixed max-lg:hidden right-1 bottom-1 z-10 min-h-8 w-8 rounded-full text-sm text-ink-soft"
    title="Keys (?)"
    aria-label="Keys"
    @click="open = true"
  >
    ?
  </button>
  <DialogFrame :open="open" title="Keys" @close="open = false">
    <dl class="grid grid-cols-[9rem_1fr] gap-y-2">
      <template v-for="[key, what] in keys" :key="key">
        <dt class="num font-bold">{{ key }}</dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </DialogFrame>
</template>
