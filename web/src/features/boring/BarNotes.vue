<script setup lang="ts">
import type { BoringView } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { useForm } from '@/shared/ui/useForm'

import type { BoringNow } from './useBoring'

/** Before a programme: probe and zero looked at again; and what tools and set-ups made of such iron before. */
const props = defineProps<{ now: BoringNow; view: BoringView }>()
const { refusal, busy, send } = useForm()
const looked = () => send(() => props.now.zeroLooked())
</script>

<template>
  <section v-if="view.zero_due" class="border-l-4 border-unsure pl-4" aria-label="Before the next pass">
    <p class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <span class="inline-block font-bold first-letter:uppercase">{{ view.zero_due }}.</span>
      <button type="button" class="quiet min-h-11" :disabled="busy" @click="looked">
        Probe and zero looked at
      </button>
    </p>
    <RefusalNote :refusal="refusal" />
  </section>
  <section v-if="view.notes.length" aria-label="On such iron before">
    <h2 class="text-base">On {{ view.material }} before</h2>
    <ul class="grid gap-1 text-sm">
      <li v-for="note in view.notes" :key="note.said_at + note.words">
        {{ note.words }}
        <span class="text-ink-soft"
          >({{ note.of }}, {{ note.job }} hole {{ note.hole }}, {{ note.said_by }},
          {{ whenText(note.said_at) }})</span
        >
      </li>
    </ul>
  </section>
</template>
