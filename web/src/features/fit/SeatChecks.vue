<script setup lang="ts">
import { ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type AfterView, noteOnPull, type PullMarkKind, type SeatCheckView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { whenText } from '@/shared/format/time'
import { newId } from '@/shared/newId'
import { useJob } from '@/shared/state/job'
import { ownChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

/** Is it seated? Each look with who did it; what speaks against it wants words. */
const props = defineProps<{ hole: number; after: AfterView }>()
const emit = defineEmits<{ noted: [] }>()
const job = useJob()
const refusal = ref<Refusal | null>(null)
const words = ref('')
const against = ref<SeatCheckView | null>(null)
const ASKS: Record<string, [string, string]> = {
  'feeler under the flange': ['It enters nowhere', 'It enters'],
  'pressed a second time': ['Nothing moved', 'It moved'],
  'marked for its hole': ['It is marked', ''],
}

async function note(kind: PullMarkKind | undefined): Promise<void> {
  const pull_id = props.after.pull_id
  if (!kind || !pull_id) return
  refusal.value = null
  try {
    await ownChange(job.jobId, () =>
      ask(
        noteOnPull({
          path: { job_id: job.jobId, hole: props.hole, pull_id },
          body: { pull_mark_id: newId(), kind, words: words.value, person_id: personId.value },
        }),
      ),
    )
    words.value = ''
    against.value = null
    emit('noted')
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
</script>

<template>
  <section class="mt-3" aria-label="Is it seated">
    <h3 class="font-bold">Is it seated?</h3>
    <ul class="mt-1 grid gap-x-8 sm:grid-cols-2">
      <li
        v-for="one in after.seat"
        :key="one.look"
        class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-1.5"
      >
        <StateGate :state="one.state" />
        <span class="min-w-0 flex-1"
          >{{ one.look }}:
          <b>{{ one.words }}</b>
          <span v-if="one.by && one.at" class="text-sm text-ink-soft"
            >, {{ one.by }} {{ whenText(one.at) }}</span
          ></span
        >
        <template v-if="one.marks.length">
          <button type="button" class="quiet" @click="note(one.marks[0])">{{ ASKS[one.look]?.[0] }}</button>
          <button v-if="one.marks.length > 1" type="button" class="quiet" @click="against = one">
            {{ ASKS[one.look]?.[1] }}
          </button>
        </template>
      </li>
    </ul>
    <form v-if="against" class="mt-2 flex flex-wrap items-end gap-3" @submit.prevent="note(against.marks[1])">
      <TextField v-model="words" label="Where, and by how much" path="words" />
      <button type="submit" class="act" :disabled="!words.trim()">Write it down</button>
    </form>
    <RefusalNote :refusal="refusal" />
    <p v-if="!after.pull_id" class="mt-1 text-sm text-ink-soft">
      No pull is on record: feeler, second press and mark have nowhere to stand.
    </p>
  </section>
</template>
