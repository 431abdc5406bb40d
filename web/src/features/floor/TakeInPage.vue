<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, Refusal } from '@/api/ask'
import { listCards, takeInJob } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import DeckOutline from '@/shared/charts/DeckOutline.vue'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Taking an engine in: who, what, the complaint in the customer's words, and the card it is measured to. */
const EMPTY = { number: '', name: '', customer: '', complaint: '', serial: '', card: '' }
const NEEDS_CARD = 'Choose the spec card this engine is measured to, or write one first.'
const draft = useLocalStorage('vallo-take-in', { ...EMPTY })
const { data: cards, refusal: notLoaded } = useLoaded(() => ask(listCards()))
const { refusal, send } = useForm()
const router = useRouter()

const choices = computed(() => [
  { value: '', label: 'Choose a spec card' },
  ...(cards.value ?? []).map((one) => ({
    value: one.version.spec_card_id,
    label: `${one.name} · ${one.layout.holes} holes · version ${one.version.version}`,
  })),
])
/** The card that was just written for this engine. */
const route = useRoute()
if (typeof route.query['card'] === 'string') draft.value.card = route.query['card']
const chosen = computed(() => cards.value?.find((one) => one.version.spec_card_id === draft.value.card))

function takeIn(): Promise<void> {
  return send(async () => {
    const { card, ...rest } = draft.value
    if (!card) throw new Refusal('wrong', NEEDS_CARD, [{ field: 'spec_card_id', message: NEEDS_CARD }])
    const made = await ask(takeInJob({ body: { ...rest, spec_card_id: card, person_id: personId.value } }))
    draft.value = { ...EMPTY }
    await router.push({ name: 'grid', params: { job: made.job_id } })
  })
}
</script>

<template>
  <main class="mx-auto grid w-full max-w-5xl gap-x-10 gap-y-4 px-5 py-5 md:grid-cols-2">
    <form class="grid gap-3" @submit.prevent="takeIn">
      <h1 class="text-xl">Take an engine in</h1>
      <RefusalNote :refusal="refusal ?? notLoaded" />
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
        <RouterLink to="/cards/new?then=take-in" class="link">Write a new spec card</RouterLink>
      </div>
    </form>
    <section aria-label="Numbering">
      <h2 class="text-lg">How its holes are numbered</h2>
      <DeckOutline
        v-if="chosen"
        :layout="chosen.layout"
        :numbering="chosen.layout.numbering"
        :twelve="chosen.layout.twelve_o_clock"
        :bank-angle="chosen.layout.bank_angle_deg"
      />
      <p v-else-if="cards?.length === 0">
        There is no spec card yet.
        <RouterLink to="/cards/new?then=take-in" class="link">Write the first one</RouterLink>: what is typed
        here stays.
      </p>
      <p v-else class="text-ink-soft">
        Choose a spec card: it says how many holes there are, where number one is and what lies at 12 h.
      </p>
    </section>
  </main>
</template>
