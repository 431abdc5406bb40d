<script setup lang="ts">
import { computed, reactive } from 'vue'

import { ask } from '@/api/ask'
import { type FloorStrip, listJobs, writeOwn } from '@/api/generated'
import { newId } from '@/shared/newId'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** An exercise of the shop's own: the heights of a past job without its names, and what is to be learned of it. */
const emit = defineEmits<{ written: [] }>()
const { data: jobs } = useLoaded<FloorStrip[]>(() => ask(listJobs()))
const form = useForm()
const draft = reactive({ job: '', title: '', words: '', lesson: '' })
const choices = computed(() => [
  { value: '', label: 'choose' },
  ...(jobs.value ?? []).map((one) => ({ value: one.job.job_id, label: one.job.name })),
])
const write = () =>
  form.send(async () => {
    const body = {
      own_id: newId(),
      job_id: draft.job,
      title: draft.title,
      words: draft.words,
      lesson: draft.lesson,
      person_id: personId.value,
    }
    await ask(writeOwn({ body }))
    Object.assign(draft, { job: '', title: '', words: '', lesson: '' })
    emit('written')
  })
</script>

<template>
  <details class="no-print mt-5 border-t-2 border-ink pt-2">
    <summary class="link cursor-pointer">Write an exercise from a past job</summary>
    <form class="mt-2 grid max-w-[46rem] gap-2" novalidate @submit.prevent="write">
      <p class="text-ink-soft">
        Its heights come along, as they were read; its names do not, and no text may hold one. Holes are
        numbered anew for each player.
      </p>
      <ChoiceField v-model="draft.job" label="Job" :choices="choices" path="job_id" />
      <TextField v-model="draft.title" label="What it is called" path="title" />
      <TextField v-model="draft.words" label="The task" path="words" long />
      <TextField v-model="draft.lesson" label="What stands there afterwards" path="lesson" long />
      <RefusalNote :refusal="form.refusal.value" />
      <button class="act justify-self-start" :disabled="form.busy.value">Keep this exercise</button>
    </form>
  </details>
</template>
