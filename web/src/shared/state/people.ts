/** Everybody in the shop, and who is working at this bench. */
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { listPeople, type Person } from '@/api/generated'

import { personId } from './preferences'

/** Kept for a page loaded again while the application is out of reach. */
export const people = useLocalStorage<Person[]>('vallo-people', [])

export async function loadPeople(): Promise<void> {
  people.value = await ask(listPeople())
  if (!people.value.some((person) => person.person_id === personId.value)) {
    personId.value = people.value[0]?.person_id ?? ''
  }
}

export const person = computed(() => people.value.find((one) => one.person_id === personId.value) ?? null)
