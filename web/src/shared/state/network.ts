/** How this page is served: at the machine itself, or to a paired device of the shop's network. */
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type NetworkView, readNetwork } from '@/api/generated'

export const network = ref<NetworkView | null>(null)

export async function loadNetwork(): Promise<void> {
  network.value = await ask(readNetwork())
}
