<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { changeOwnPassword } from '@/api/generated'
import { signedIn } from '@/shared/state/network'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Another password for whoever is signed in. */
const { refusal, busy, send } = useForm()
const present = ref('')
const password = ref('')
const said = ref('')

function change(): Promise<void> {
  said.value = ''
  return send(async () => {
    await ask(changeOwnPassword({ body: { present: present.value, password: password.value } }))
    present.value = password.value = ''
    said.value = 'It is taken from now on; other screens sign in anew.'
  })
}
</script>

<template>
  <section :aria-label="`Password of ${signedIn?.name ?? ''}`">
    <h2 class="text-xl">Your password</h2>
    <form class="mt-1 grid gap-2" @submit.prevent="change">
      <TextField v-model="present" label="The present one" path="present" secret />
      <TextField v-model="password" label="Another, a sentence" path="password" secret />
      <RefusalNote v-if="refusal?.problems.length === 0" :refusal="refusal" />
      <button
        type="submit"
        class="quiet justify-self-start"
        :disabled="busy || present === '' || password === ''"
      >
        Take the other
      </button>
      <p role="status" class="text-in">{{ said }}</p>
    </form>
  </section>
</template>
