<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, provide, ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { addPerson } from '@/api/generated'
import { loadPeople, people } from '@/shared/state/people'
import { PROBLEMS, problemsOf } from '@/shared/ui/problems'
import TextField from '@/shared/ui/TextField.vue'

const name = useLocalStorage('vallo-new-person', '')
const refusal = ref<Refusal | null>(null)
provide(
  PROBLEMS,
  computed(() => problemsOf(refusal.value)),
)

async function add(): Promise<void> {
  try {
    await ask(addPerson({ body: { name: name.value } }))
    name.value = ''
    refusal.value = null
    await loadPeople()
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
</script>

<template>
  <section aria-label="People">
    <h2 class="text-xl">People</h2>
    <ul>
      <li v-for="one in people" :key="one.person_id" class="border-b border-rule py-2">{{ one.name }}</li>
    </ul>
    <form class="mt-3 grid gap-2" @submit.prevent="add">
      <TextField v-model="name" label="Name" path="name" />
      <button type="submit" class="quiet justify-self-start">Add the person</button>
    </form>
  </section>
</template>
