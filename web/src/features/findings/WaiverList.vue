<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type Quantity, type StripRecordView, waive } from '@/api/generated'
import { ownChange, refresh } from '@/shared/state/link'
import { person } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** What the card asks for and nobody read, and what is not read by name: nothing is silently missing. */
const props = defineProps<{ record: StripRecordView; jobId: string }>()
const { refusal, busy, send } = useForm()
const asked = ref('')
const reason = ref('')
const keyOf = (one: { quantity: Quantity; part: string }) => `${one.quantity}·${one.part}`

function say(one: { quantity: Quantity; part: string }, waived: boolean): Promise<void> {
  return send(async () => {
    const { quantity, part } = one
    const body = { quantity, part, waived, reason: reason.value, person_id: personId.value }
    await ownChange(props.jobId, () => ask(waive({ path: { job_id: props.jobId }, body })))
    asked.value = reason.value = ''
    await refresh(props.jobId)
  })
}
</script>

<template>
  <section aria-label="Not read">
    <h2 class="border-b border-ink text-lg">Still to be read as found</h2>
    <p v-if="record.unread.length === 0" class="py-2 text-in">Everything is read, or not read by name.</p>
    <ul>
      <li v-for="one in record.unread" :key="keyOf(one)" class="border-b border-rule py-1">
        <span class="flex flex-wrap items-baseline gap-x-3">
          <RouterLink
            class="link"
            :to="{ name: 'survey', params: { job: jobId, quantity: one.quantity, part: one.part } }"
            >{{ one.quantity }}, {{ one.title }}</RouterLink
          >
          <button type="button" class="link ml-auto min-h-8 text-sm" @click="asked = keyOf(one)">
            It is not read
          </button>
        </span>
        <form v-if="asked === keyOf(one)" class="grid gap-2 py-2" @submit.prevent="say(one, true)">
          <TextField v-model="reason" label="Why it is not read" path="reason" />
          <RefusalNote :refusal="refusal" />
          <button type="submit" class="quiet justify-self-start" :disabled="busy">
            Waive it as {{ person?.name ?? 'nobody yet' }}
          </button>
        </form>
      </li>
    </ul>
    <template v-if="record.waivers.length">
      <h3 class="mt-3">Not read, by name</h3>
      <ul>
        <li v-for="one in record.waivers" :key="keyOf(one)" class="border-b border-rule py-1">
          {{ one.quantity }}, {{ one.title }}
          <span class="block text-sm text-ink-soft">{{ one.waived_by }}: {{ one.reason }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>
