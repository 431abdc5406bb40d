<script setup lang="ts">
import type { Undo } from '@/shared/state/useUndo'

import RefusalNote from './RefusalNote.vue'

/** What Undo took back, what it asks before it does, or why it did not: seen and announced. */
const props = defineProps<{ undo: Undo }>()
const { said, asking, refusal } = props.undo
</script>

<template>
  <div>
    <p v-show="said" role="status" aria-label="Undone">
      <template v-if="said"
        >undone: <b>{{ said }}</b></template
      >
    </p>
    <div
      v-if="asking"
      role="alert"
      class="flex flex-wrap items-center gap-x-4 gap-y-2 border-l-4 border-unsure py-1 pl-3"
    >
      <span
        >What you recorded last is not what is shown here: <b>{{ asking.words }}</b></span
      >
      <button type="button" class="quiet" @click="undo.undo(true)">Take it back</button>
      <button type="button" class="quiet" @click="undo.leave()">Leave it</button>
    </div>
    <RefusalNote :refusal="refusal" />
  </div>
</template>
