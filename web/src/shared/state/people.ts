/** Everybody in the shop, and who is working at this bench. */
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { listPeople, type Person } from '@/api/generated'

import { personId } from './preferences'

export const people = ref<Person[]>([])

export async function loadPeople(): Promise<void> {
  people.value = await ask(listPeople())
  if (!people.value.some((person) => person.person_id === personId.value)) {
    personId.value = people.value[0]?.person_id ?? ''
  }
}

export const person = computed(() => people.value.find((one) => one.person_id === personId.value) ?? null)
