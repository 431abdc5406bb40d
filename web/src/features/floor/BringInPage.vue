<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { importJob, type JobBroughtInView } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useStoppable } from '@/shared/state/useStoppable'
import FileField from '@/shared/ui/FileField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import WaitingNote from '@/shared/ui/WaitingNote.vue'
import { useForm } from '@/shared/ui/useForm'

/** A whole job from its file; one that is here already can stand beside it as a copy. */
const router = useRouter()
const { refusal, busy, send } = useForm()
const file = ref<File | null>(null)
const number = ref('')
const waiting = useStoppable()
/** Here now, with something to be said of it first. */
const brought = ref<JobBroughtInView | null>(null)
/** Chosen once for this file: photos that are not in it stay behind. */
const leftBehind = ref(false)

function choose(chosen: File): Promise<void> {
  file.value = chosen
  number.value = ''
  leftBehind.value = false
  brought.value = null
  return bringIn(false)
}
function leavePhotos(): Promise<void> {
  leftBehind.value = true
  return bringIn(false)
}
function bringIn(asCopy: boolean): Promise<void> {
  return send(async () => {
    if (file.value === null) return
    const body = {
      file: file.value,
      person_id: personId.value,
      as_copy: asCopy,
      number: number.value,
      without_photos: leftBehind.value,
    }
    const done = await waiting.run((signal) => ask(importJob({ body, signal })))
    if (done === null) return
    if (done.marked.length > 0) brought.value = done
    else await router.push({ name: 'home', params: { job: done.job_id } })
  })
}
</script>

<template>
  <main class="mx-auto grid w-full max-w-xl content-start gap-4 px-5 py-6">
    <h1 class="text-xl">Bring a job in</h1>
    <p>
      The file that the proof page gives out holds everything that was recorded: it comes in as it was, with
      its people, gauges and spec card where they are not here yet. It is held to what may be typed here, and
      that it came from a file stays on record.
    </p>
    <FileField
      label="Job file"
      accept=".json,.zip"
      hint="JSON, 5 MB at most, or the ZIP with photos"
      :largest-mb="100"
      @chosen="choose"
    />
    <div v-if="file && refusal?.code === 'asks'" class="flex gap-3">
      <button type="button" class="quiet" :disabled="busy" @click="leavePhotos">
        Bring it in without its photos
      </button>
    </div>
    <WaitingNote :waiting="waiting" :what="`bringing ${file?.name ?? ''} in`" give-up="Give it up" />
    <section v-if="brought" aria-label="Marked" class="grid gap-2 border-l-4 border-unsure pl-3">
      <h2 class="text-lg">Job {{ brought.number }} is here, and marked</h2>
      <p class="text-sm text-ink-soft">This stands on its tape and on its proof for good:</p>
      <ul class="grid list-disc gap-1 pl-5">
        <li v-for="words in brought.marked" :key="words">{{ words }}</li>
      </ul>
      <RouterLink class="act justify-self-start" :to="{ name: 'home', params: { job: brought.job_id } }"
        >To the job</RouterLink
      >
    </section>
    <form
      v-if="file && refusal?.code === 'taken'"
      class="grid gap-3 border-l-4 border-unsure pl-3"
      @submit.prevent="bringIn(true)"
    >
      <p v-if="!refusal.at('file')">{{ refusal.message }}</p>
      <TextField v-model="number" label="Job number of the copy" path="number" />
      <button type="submit" class="act justify-self-start" :disabled="busy || number.trim() === ''">
        Bring it in as a copy
      </button>
      <RouterLink to="/" class="link">Leave it: to the floor</RouterLink>
    </form>
    <RefusalNote v-else-if="refusal && !refusal.at('file')" :refusal="refusal" />
  </main>
</template>
