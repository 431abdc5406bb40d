<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type MadeLinkView, makeReaderLink } from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A link for the customer: it shows this proof as it stands, until a day, and nothing else. */
const props = defineProps<{ jobId: string; customer: string }>()
const { refusal, busy, send } = useForm()
const name = ref(props.customer)
const days = ref('30')
const made = ref<MadeLinkView | null>(null)
const picture = computed(() =>
  made.value ? `data:image/svg+xml;utf8,${encodeURIComponent(made.value.qr_svg)}` : '',
)

function make(): Promise<void> {
  return send(async () => {
    const body = { job_id: props.jobId, name: name.value, days: Number(days.value) || 0 }
    made.value = await ask(makeReaderLink({ body }))
  })
}
</script>

<template>
  <section aria-label="A link for the customer" class="mb-3 border-l-4 border-part bg-sheet px-4 py-3">
    <div v-if="made" class="flex flex-wrap items-center gap-5">
      <img :src="picture" alt="The link for a camera" class="w-32" />
      <div class="min-w-0 flex-1">
        <p>
          It shows {{ made.link.name }} this proof as it stands, until
          <b>{{ made.link.expires_at.slice(0, 10) }}</b>; this once it is told:
        </p>
        <p class="font-mono text-lg break-all select-all" data-link>{{ made.address }}</p>
        <p class="text-sm text-ink-soft">Whoever has it reads the proof. End it under Gauges and people.</p>
      </div>
    </div>
    <form v-else class="flex flex-wrap items-end gap-3" @submit.prevent="make">
      <TextField v-model="name" class="w-64" label="For" path="name" />
      <TextField v-model="days" class="w-32" label="Good for" unit="days" path="days" whole />
      <button type="submit" class="act" :disabled="busy || name.trim() === ''">Make the link</button>
      <RefusalNote
        v-if="refusal && refusal.problems.every((one) => !['name', 'days'].includes(one.field))"
        class="w-full"
        :refusal="refusal"
      />
    </form>
  </section>
</template>
