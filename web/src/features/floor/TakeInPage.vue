<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, onMounted, provide, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type CardSummary, listCards, takeInJob } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import { PROBLEMS, problemsOf } from '@/shared/ui/problems'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import NumberingPicture from './NumberingPicture.vue'

/** Taking an engine in: who, what, the complaint in the customer's words, and the card it is measured to. */
const EMPTY = { number: '', name: '', customer: '', complaint: '', serial: '', card: '' }
const draft = useLocalStorage('vallo-take-in', { ...EMPTY })
const cards = shallowRef<CardSummary[]>([])
const refusal = ref<Refusal | null>(null)
const router = useRouter()
provide(
  PROBLEMS,
  computed(() => problemsOf(refusal.value)),
)

const choices = computed(() => [
  { value: '', label: 'Choose a spec card' },
  ...cards.value.map((one) => ({
    value: one.version.spec_card_id,
    label: `${one.name} · ${one.holes} holes · version ${one.version.version}`,
  })),
])
const chosen = computed(() => cards.value.find((one) => one.version.spec_card_id === draft.value.card))

onMounted(async () => {
  try {
    cards.value = await ask(listCards())
  } catch (error) {
    refusal.value = asRefusal(error)
  }
})

async function takeIn(): Promise<void> {
  refusal.value = null
  const { card, ...rest } = draft.value
  try {
    if (!card) throw needsCard()
    const made = await ask(takeInJob({ body: { ...rest, spec_card_id: card, person_id: personId.value } }))
    draft.value = { ...EMPTY }
    await router.push({ name: 'liners', params: { job: made.job_id } })
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}

function needsCard() {
  const message = 'Choose the spec card this engine is measured to, or write one first.'
  return Object.assign(asRefusal(new Error(message)), {
    message,
    problems: [{ field: 'spec_card_id', message }],
  })
}
</script>

<template>
  <main class="mx-auto grid w-full max-w-5xl gap-x-10 gap-y-4 px-5 py-5 md:grid-cols-2">
    <form class="grid gap-3" @submit.prevent="takeIn">
      <h1 class="text-xl">Take an engine in</h1>
      <RefusalNote :refusal="refusal" />
      <div class="grid grid-cols-[9rem_1fr] gap-3">
        <TextField v-model="draft.number" label="Job number" path="number" />
        <TextField v-model="draft.name" label="Name of the job" path="name" />
      </div>
      <TextField v-model="draft.customer" label="Customer" path="customer" />
      <TextField v-model="draft.serial" label="Engine serial number" path="serial" />
      <TextField v-model="draft.complaint" label="Complaint, in the customer's words" path="complaint" long />
      <ChoiceField v-model="draft.card" label="Measured to" :choices="choices" path="spec_card_id" />
      <div class="flex items-center gap-4">
        <button type="submit" class="act">Take in</button>
        <RouterLink to="/cards/new" class="link">Write a new spec card</RouterLink>
      </div>
    </form>
    <section aria-label="Numbering">
      <h2 class="text-lg">How its holes are numbered</h2>
      <NumberingPicture
        v-if="chosen"
        :holes="chosen.holes"
        :numbering="chosen.numbering"
        :twelve="chosen.twelve_o_clock"
      />
      <p v-else class="text-ink-soft">
        Choose a spec card: it says how many holes there are, where number one is and what lies at 12 h.
      </p>
    </section>
  </main>
</template>
