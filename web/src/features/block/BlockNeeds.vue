<script setup lang="ts">
import type { BlockView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** What the whole block needs, operation after operation: the same that the floor says. */
defineProps<{ block: BlockView }>()
const emit = defineEmits<{ choose: [hole: number] }>()
</script>

<template>
  <section aria-label="What this block needs">
    <h2 class="text-lg">What this block needs</h2>
    <p v-if="block.holes.every((hole) => hole.state === 'in')" class="text-in">Nothing: every hole is in.</p>
    <template v-for="due in block.needs" :key="due.operation">
      <h3 class="mt-3 border-b border-ink text-sm font-bold">{{ due.operation }}</h3>
      <ul>
        <li v-for="need in due.holes" :key="need.hole">
          <button
            type="button"
            class="flex min-h-11 w-full items-center gap-3 border-b border-rule py-1.5 text-left hover:bg-sheet"
            @click="emit('choose', need.hole)"
          >
            <StateGate :state="need.state" class="shrink-0" />
            <b class="w-14 shrink-0">hole {{ need.hole }}</b>
            <span><PhraseText :phrase="need.sentence" /></span>
          </button>
        </li>
      </ul>
    </template>
    <p class="mt-3 text-sm text-ink-soft">
      Choose a hole: click its ring, or type # and its number, such as #3.
    </p>
  </section>
</template>
