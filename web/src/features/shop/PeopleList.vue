<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import { ask } from '@/api/ask'
import { addPerson } from '@/api/generated'
import { loadPeople, people } from '@/shared/state/people'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

const name = useLocalStorage('vallo-new-person', '')
const { send } = useForm()

function add(): Promise<void> {
  return send(async () => {
    await ask(addPerson({ body: { name: name.value } }))
    name.value = ''
    await loadPeople()
  })
}
</script>

<template>
  <section aria-label="People">
    <h2 class="text-xl">People</h2>
    <p v-if="people.length === 0" class="py-2">
      Nobody is here yet. Every reading is kept under a name: add the first.
    </p>
    <ul>
      <li v-for="one in people" :key="one.person_id" class="border-b border-rule py-2">{{ one.name }}</li>
    </ul>
    <form class="mt-3 grid gap-2" @submit.prevent="add">
      <TextField v-model="name" label="Name" path="name" />
      <button type="submit" class="quiet justify-self-start">Add the person</button>
    </form>
  </section>
</template>
