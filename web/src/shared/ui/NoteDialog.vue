<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { addNote, addNoteToFinding, type PhotoMark } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import type { Undo } from '@/shared/state/useUndo'

import DialogFrame from './DialogFrame.vue'
import FileField from './FileField.vue'
import PhotoMarks from './PhotoMarks.vue'
import RefusalNote from './RefusalNote.vue'
import TextField from './TextField.vue'
import { useForm } from './useForm'

/** What is written and photographed at one reading, or of one thing found, and adding to it. */
const props = defineProps<{ open: boolean; readingId: string; where: string; undo: Undo; found?: boolean }>()
const emit = defineEmits<{ close: []; added: [] }>()

const LARGEST_PHOTO_MB = 10
const words = useLocalStorage<string | null>(`vallo-note-${props.readingId}`, '', { writeDefaults: false })
const photo = ref<File | null>(null)
const preview = ref('')
const marks = ref<PhotoMark[]>([])
const keepPlace = ref(false)
/** Made once for what is written, so that sending it again never doubles it. */
const noteId = ref(newId())
const { refusal, busy, send } = useForm()
const job = useJob()
const here = computed(
  () =>
    job.block.value?.notes.filter((note) => (note.reading_id ?? note.finding_id) === props.readingId) ?? [],
)

/** Shown from the file itself: nothing is sent before it is kept. */
function choose(file: File): void {
  photo.value = file
  marks.value = []
  const reader = new FileReader()
  reader.onload = () => (preview.value = reader.result as string)
  reader.readAsDataURL(file)
}

function clear(): void {
  words.value = null
  photo.value = null
  preview.value = ''
  keepPlace.value = false
  marks.value = []
  noteId.value = newId()
  refusal.value = null
}

function keep(): Promise<void> {
  return send(async () => {
    const body = {
      note_id: noteId.value,
      person_id: personId.value,
      words: words.value ?? '',
      marks: JSON.stringify(marks.value),
      file: photo.value,
      keep_place: keepPlace.value,
    }
    await props.undo.inTurn(async () => {
      const id = props.readingId
      await ask(
        props.found
          ? addNoteToFinding({ path: { finding_id: id }, body })
          : addNote({ path: { reading_id: id }, body }),
      )
      props.undo.did()
    })
    clear()
    emit('added')
    await job.reload()
  })
}
</script>

<template>
  <DialogFrame :open="open" :title="`Notes on ${where}`" @close="emit('close')">
    <article v-for="note in here" :key="note.note_id" class="mb-3 border-b border-rule pb-3">
      <div class="flex items-start justify-between gap-3">
        <p :class="note.struck && 'text-ink-soft line-through'">{{ note.words || 'Photo' }}</p>
        <button
          type="button"
          class="quiet text-xs"
          :aria-label="`${note.struck ? 'Restore' : 'Strike'} the note`"
          @click="undo.setStruck(note.event, !note.struck, note.struck ? 'restored' : 'note struck')"
        >
          {{ note.struck ? 'Restore' : 'Strike' }}
        </button>
      </div>
      <p class="text-xs text-ink-soft">
        {{ note.made_by }} {{ whenText(note.made_at)
        }}{{ note.has_photo && !note.photo_here ? ' · its photo stayed where the job came from' : '' }}
      </p>
      <PhotoMarks
        v-if="note.photo_here && !note.struck"
        class="mt-2"
        :src="`/api/notes/${note.note_id}/photo`"
        :alt="note.words || `Photo of ${where}`"
        :marks="note.marks"
      />
      <ol v-if="note.marks.some((mark) => mark.words) && !note.struck" class="mt-1 list-decimal pl-6 text-sm">
        <li v-for="(mark, index) in note.marks" :key="index">{{ mark.words }}</li>
      </ol>
    </article>
    <form class="grid gap-3" aria-label="Add a note" @submit.prevent="keep">
      <RefusalNote :refusal="refusal" />
      <TextField v-model="words" label="Note" path="words" long />
      <FileField
        label="Photo"
        accept="image/jpeg,image/png,image/webp"
        hint="JPEG, PNG or WebP"
        :largest-mb="LARGEST_PHOTO_MB"
        @chosen="choose"
      />
      <template v-if="preview">
        <p class="text-sm text-ink-soft">Tap the photo where something is to be seen.</p>
        <PhotoMarks
          :src="preview"
          alt="The photo to be kept"
          :marks="marks"
          editable
          @change="marks = $event"
        />
        <div v-for="(mark, index) in marks" :key="index" class="flex items-end gap-2">
          <TextField v-model="mark.words" class="flex-1" :label="`What is at ${index + 1}`" />
          <button type="button" class="quiet min-h-10" @click="marks.splice(index, 1)">Take off</button>
        </div>
        <label class="flex items-center gap-2 text-sm"
          ><input v-model="keepPlace" type="checkbox" class="size-5" /> leave in it where it was taken</label
        >
      </template>
      <button type="submit" class="act justify-self-start" :disabled="busy">
        {{ busy ? 'Keeping it …' : found ? 'Keep it' : 'Keep it with the reading' }}
      </button>
    </form>
  </DialogFrame>
</template>
