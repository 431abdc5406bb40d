<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { listPasswords, setPassword } from '@/api/generated'
import { loadNetwork } from '@/shared/state/network'
import { people } from '@/shared/state/people'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Passwords, where the shop wants them: who has one, and as what they come in. */
const { data: known, refusal: notLoaded } = useLoaded(() => ask(listPasswords()))
const { refusal, busy, send } = useForm()
const of = ref('')
const role = ref('owner')
const password = ref('')
const choices = computed(() => people.value.map((one) => ({ value: one.person_id, label: one.name })))
const ROLES = [
  { value: 'owner', label: 'an owner: lets others in' },
  { value: 'machinist', label: 'a machinist: all work' },
]

function set(person: string, as: string, text: string): Promise<void> {
  return send(async () => {
    const body = {
      of: person,
      role: as === 'owner' ? ('owner' as const) : ('machinist' as const),
      password: text,
    }
    known.value = await ask(setPassword({ body }))
    password.value = ''
    await loadNetwork()
  })
}
</script>

<template>
  <section aria-label="Signing in">
    <h2 class="text-xl">Signing in</h2>
    <RefusalNote
      :refusal="refusal && refusal.problems.every((one) => one.field === 'person_id') ? refusal : notLoaded"
    />
    <p v-if="known?.length === 0" class="max-w-prose py-2">
      Nobody signs in now: whoever is at a screen chooses a name. From the first password on, which is an
      owner’s, whoever comes in signs in, at this machine too, and records under no other name.
    </p>
    <ul v-else>
      <li
        v-for="one in known"
        :key="one.person_id"
        class="flex items-center justify-between gap-4 border-b border-rule py-1"
      >
        <span
          ><b>{{ one.name }}</b> <span class="text-sm text-ink-soft">{{ one.role }}</span></span
        >
        <button
          type="button"
          class="quiet min-h-11 text-sm"
          :disabled="busy"
          @click="set(one.person_id, one.role, '')"
        >
          Take the password away
        </button>
      </li>
    </ul>
    <form class="mt-3 grid gap-2" @submit.prevent="set(of, role, password)">
      <ChoiceField v-model="of" label="Password of" :choices="choices" path="of" />
      <ChoiceField v-model="role" label="as" :choices="ROLES" path="role" />
      <TextField v-model="password" label="Password, a sentence" path="password" secret />
      <button type="submit" class="quiet justify-self-start" :disabled="busy || of === '' || password === ''">
        Set the password
      </button>
    </form>
  </section>
</template>
