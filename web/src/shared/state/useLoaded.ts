/** One list or thing from the server, loaded when its view appears; what is in the way is said. */
import { onMounted, type Ref, ref, type ShallowRef, shallowRef } from 'vue'

import { asRefusal, type Refusal } from '@/api/ask'

export interface Loaded<T> {
  data: ShallowRef<T | null>
  refusal: Ref<Refusal | null>
  load: () => Promise<void>
}

export function useLoaded<T>(fetch: () => Promise<T>): Loaded<T> {
  const data = shallowRef<T | null>(null)
  const refusal = ref<Refusal | null>(null)

  async function load(): Promise<void> {
    try {
      data.value = await fetch()
      refusal.value = null
    } catch (error) {
      refusal.value = asRefusal(error)
    }
  }

  onMounted(load)
  return { data, refusal, load }
}
