<script setup lang="ts">
import { computed } from 'vue'

import type { Action, HoleView } from '@/api/generated'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** One sentence, one number, one button; why opens the arithmetic. */
const props = defineProps<{ hole: HoleView }>()
const emit = defineEmits<{ act: []; why: [] }>()

const VERBS: Record<Action, string> = {
  nothing: '',
  read: 'Read it',
  'read depth': 'Measure the ledge',
  'read flange': 'Measure the flange',
  fit: 'Fit it',
  cut: 'Plan the cut',
  explain: 'Look into it',
}
const verb = computed(() => VERBS[props.hole.need.action])
</script>

<template>
  <section class="rounded bg-plate p-4 text-plate-text" aria-label="What this hole needs">
    <h2 class="text-sm font-normal text-plate-soft">What hole {{ hole.number }} needs</h2>
    <p class="text-xl leading-snug font-bold"><PhraseText :phrase="hole.need.sentence" /></p>
    <p v-if="hole.need.detail.text" class="mt-1 leading-snug text-plate-soft">
      <PhraseText :phrase="hole.need.detail" />
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
