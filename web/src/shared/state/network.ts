/** How this page is served: at the machine itself, or to a paired device of the shop's network; to whom, as what. */
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type NetworkView, readNetwork } from '@/api/generated'

import { personId } from './preferences'

export const network = ref<NetworkView | null>(null)

/** Who is signed in; nobody where the shop does not ask for it. */
export const signedIn = computed(() => network.value?.person ?? null)
/** Whether whoever is here may let others in; not known yet, it is not refused yet. */
export const isOwner = computed(() => (network.value?.role ?? 'owner') === 'owner')

export async function loadNetwork(): Promise<void> {
  network.value = await ask(readNetwork())
  // What is recorded stands under the name of whoever signed in.
  if (signedIn.value) personId.value = signedIn.value.person_id
}
