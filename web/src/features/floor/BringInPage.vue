<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { importJob } from '@/api/generated'
import FileField from '@/shared/ui/FileField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A whole job from its file; one that is here already can stand beside it as a copy. */
const router = useRouter()
const { refusal, busy, send } = useForm()
const file = ref<File | null>(null)
const number = ref('')
/** Chosen once for this file: photos that are not in it stay behind. */
const leftBehind = ref(false)

function choose(chosen: File): Promise<void> {
  file.value = chosen
  number.value = ''
  leftBehind.value = false
  return bringIn(false)
}
function leavePhotos(): Promise<void> {
  leftBehind.value = true
  return bringIn(false)
}
function bringIn(asCopy: boolean): Promise<void> {
  return send(async () => {
    if (file.value === null) return
    const brought = await ask(
      importJob({
        body: {
          file: file.value,
          as_copy: asCopy,
          number: number.value,
          without_photos: leftBehind.value,
        },
      }),
    )
    await router.push({ name: 'home', params: { job: brought.job_id } })
  })
}
</script>

<template>
  <main class="mx-auto grid w-full max-w-xl content-start gap-4 px-5 py-6">
    <h1 class="text-xl">Bring a job in</h1>
    <p>
      The file that the proof page gives out holds everything that was recorded: it comes in as it was, with
      its people, gauges and spec card where they are not here yet.
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
    <p v-if="busy" class="text-ink-soft">Bringing {{ file?.name }} in …</p>
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
