<script setup lang="ts">
import { ref } from 'vue'

import { useJob } from '@/shared/state/job'
import type { Undo } from '@/shared/state/useUndo'
import NoteDialog from '@/shared/ui/NoteDialog.vue'

/** A note or a photo for the reading taken last, while the liner is still in sight. */
const props = defineProps<{ readingId: string; words: string; undo: Undo }>()
const job = useJob()
const open = ref(false)

function added(noteId: string): void {
  props.undo.took(noteId, [])
  open.value = false
  void job.reload()
}
</script>

<template>
  <div>
    <button type="button" class="quiet min-h-11" @click="open = true">Note or photo of it</button>
    <NoteDialog
      :key="readingId"
      :open="open"
      :reading-id="readingId"
      :where="words"
      :notes="job.block.value?.notes ?? []"
      @close="open = false"
      @added="added"
      @strike="(id, struck) => undo.setStruck(id, struck, struck ? 'note struck' : 'restored')"
    />
  </div>
</template>
