<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { signIn } from '@/api/generated'
import { loadCatalogue } from '@/shared/state/catalogue'
import { admitted } from '@/shared/state/link'
import { loadNetwork, network, signedIn } from '@/shared/state/network'
import { loadPeople } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Who it is, where the shop wants to know: name and password, for a shift. */
const route = useRoute()
const router = useRouter()
const of = ref('')
const password = ref('')
const { refusal, busy, send } = useForm()
const choices = computed(() =>
  (network.value?.sign_in ?? []).map((one) => ({ value: one.person_id, label: one.name })),
)

function enter(): Promise<void> {
  return send(async () => {
    try {
      await ask(signIn({ body: { of: of.value, password: password.value } }))
    } finally {
      password.value = ''
    }
    admitted()
    await loadNetwork()
    await Promise.all([loadPeople(), loadCatalogue()])
    await router.replace(String(route.query['to'] ?? '/'))
  })
}
onMounted(async () => {
  await loadNetwork().catch(() => undefined)
  const last = choices.value.find((one) => one.value === personId.value)
  // Whoever was quicker has chosen already.
  if (of.value === '') of.value = (last ?? choices.value[0])?.value ?? ''
})
</script>

<template>
  <main class="mx-auto grid w-full max-w-md content-start gap-4 px-5 py-8">
    <h1 class="text-2xl">Who is it?</h1>
    <p v-if="signedIn">
      {{ signedIn.name }} is signed in. <RouterLink to="/" class="link">To the floor: all jobs</RouterLink>
    </p>
    <p v-else-if="network && choices.length === 0">
      Nobody is asked to sign in here. <RouterLink to="/" class="link">To the floor: all jobs</RouterLink>
    </p>
    <form v-else class="grid gap-4" @submit.prevent="enter">
      <ChoiceField v-model="of" label="Name" :choices="choices" path="of" />
      <TextField v-model="password" label="Password" path="password" secret />
      <RefusalNote v-if="refusal?.problems.length === 0" :refusal="refusal" />
      <button type="submit" class="act" :disabled="busy || of === '' || password === ''">Sign in</button>
      <p class="text-sm text-ink-soft">
        For twelve hours, or until you sign out under your name. Forgotten? An owner gives another one under
        <b>Gauges and people</b>.
      </p>
    </form>
  </main>
</template>
