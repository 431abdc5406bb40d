<script setup lang="ts">
import { computed } from 'vue'

import type { Action, NeedView } from '@/api/generated'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** One sentence, one number, one button; why opens the arithmetic. */
const props = defineProps<{ number: number; need: NeedView }>()
const emit = defineEmits<{ act: []; why: [] }>()

const VERBS: Record<Action, string> = {
  nothing: '',
  read: 'Read it',
  'read depth': 'Measure the ledge',
  'read flange': 'Measure the flange',
  'read survey': 'Go to its bench',
  fit: 'Fit it',
  cut: 'Plan the cut',
  explain: 'Look into it',
  route: 'Go to the route',
}
const verb = computed(() => VERBS[props.need.action])
</script>

<template>
  <section class="rounded bg-plate p-4 text-plate-text" aria-label="What this hole needs">
    <h2 class="text-sm font-normal text-plate-soft">
      What hole {{ number }} needs<template v-if="need.operation"> · {{ need.operation }}</template>
    </h2>
    <p class="text-xl leading-snug font-bold"><PhraseText :phrase="need.sentence" /></p>
    <p v-if="need.detail.text" class="mt-1 leading-snug text-plate-soft">
      <PhraseText :phrase="need.detail" />
    </p>
    <div class="mt-3 flex items-center gap-5">
      <button v-if="verb" type="button" class="act" title="Ctrl+Enter" @click="emit('act')">
        {{ verb }}
      </button>
      <button
        type="button"
        class="min-h-11 text-plate-act underline underline-offset-4"
        title="W"
        @click="emit('why')"
      >
        Why
      </button>
    </div>
  </section>
</template>
