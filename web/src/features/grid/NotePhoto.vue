<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { addNote } from '@/api/generated'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import type { Undo } from '@/shared/state/useUndo'
import FileField from '@/shared/ui/FileField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { useForm } from '@/shared/ui/useForm'

/** The photo of a note on paper, beside the grid while it is copied; kept with the last reading that was taken. */
const props = defineProps<{ lastTaken: { id: string; name: string } | null; undo: Undo }>()
const LARGEST_PHOTO_MB = 10
const job = useJob()
const photo = ref<File | null>(null)
const picture = ref('')
const kept = ref('')
const noteId = ref(newId())
const { refusal, busy, send } = useForm()

/** Shown from the file itself: nothing is sent before it is kept. */
function choose(file: File): void {
  photo.value = file
  kept.value = ''
  noteId.value = newId()
  const reader = new FileReader()
  reader.onload = () => (picture.value = reader.result as string)
  reader.readAsDataURL(file)
}

function keep(): Promise<void> {
  return send(async () => {
    const to = props.lastTaken
    if (!to || !photo.value) return
    const words = 'The note on paper that the readings of the grid were copied from.'
    const body = { note_id: noteId.value, person_id: personId.value, words, marks: '[]', file: photo.value }
    await props.undo.inTurn(async () => {
      await ask(addNote({ path: { reading_id: to.id }, body }))
      props.undo.did()
    })
    kept.value = `Kept with ${to.name}.`
    await job.reload()
  })
}
</script>

<template>
  <details class="py-2" :open="picture !== '' || undefined">
    <summary class="min-h-11 cursor-pointer py-2 font-bold">A photo of the note beside it</summary>
    <form class="grid max-w-3xl gap-3" aria-label="Photo of a note" @submit.prevent="keep">
      <FileField
        label="Photo of the note"
        accept="image/jpeg,image/png"
        hint="JPEG or PNG; it stays here until it is kept"
        :largest-mb="LARGEST_PHOTO_MB"
        @chosen="choose"
      />
      <img v-if="picture" :src="picture" alt="The note on paper" class="max-h-[60vh] w-full object-contain" />
      <RefusalNote :refusal="refusal" />
      <div v-if="picture" class="flex flex-wrap items-center gap-4">
        <button type="submit" class="quiet" :disabled="busy || lastTaken === null || kept !== ''">
          Keep it with {{ lastTaken ? lastTaken.name : 'the next reading that is taken' }}
        </button>
        <p v-if="kept" role="status">{{ kept }}</p>
      </div>
    </form>
  </details>
</template>
