<script setup lang="ts">
import { computed } from 'vue'

import type { Action, NeedView } from '@/api/generated'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** One sentence, one number, one button; why opens the arithmetic. */
const props = defineProps<{ number: number; need: NeedView; compact?: boolean }>()
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
  <section
    class="rounded bg-plate text-plate-text"
    :class="compact ? 'px-3 py-2' : 'p-4'"
    aria-label="What this hole needs"
  >
    <h2 class="text-sm font-normal text-plate-soft" :class="compact && '[@media(height<35rem)]:sr-only'">
      What hole {{ number }} needs<template v-if="need.operation"> · {{ need.operation }}</template>
    </h2>
    <p class="leading-snug font-bold" :class="compact ? 'text-lg' : 'text-xl'">
      <PhraseText :phrase="need.sentence" />
    </p>
    <p
      v-if="need.detail.text"
      class="mt-1 leading-snug text-plate-soft"
      :class="compact && 'text-sm [@media(height<35rem)]:hidden'"
    >
      <PhraseText :phrase="need.detail" />
    </p>
    <div class="flex items-center gap-5" :class="compact ? 'mt-1.5' : 'mt-3'">
      <button
        v-if="verb"
        type="button"
        class="act"
        :class="compact && 'flex-1'"
        title="Ctrl+Enter"
        @click="emit('act')"
      >
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
