<script setup lang="ts">
import { ref } from 'vue'

import type { Undo } from '@/shared/state/useUndo'
import NoteDialog from '@/shared/ui/NoteDialog.vue'

/** A note or a photo for the reading taken last, while the liner is still in sight. */
defineProps<{ readingId: string; words: string; undo: Undo }>()
const open = ref(false)
</script>

<template>
  <div>
    <button type="button" class="quiet min-h-11" @click="open = true">Note or photo of it</button>
    <NoteDialog
      :key="readingId"
      :open="open"
      :reading-id="readingId"
      :where="words"
      :undo="undo"
      @close="open = false"
      @added="open = false"
    />
  </div>
</template>
