/** One list or thing from the server, loaded when its view appears; what is in the way is said, what comes late dropped. */
import { onMounted, type Ref, ref, type ShallowRef, shallowRef, watch, type WatchSource } from 'vue'

import { asRefusal, type Refusal } from '@/api/ask'

export interface Loaded<T> {
  data: ShallowRef<T | null>
  refusal: Ref<Refusal | null>
  load: () => Promise<void>
}

/** ``of`` is what it belongs to: when that changes, what was loaded before is put away and asked for anew. */
export function useLoaded<T>(fetch: () => Promise<T>, of?: WatchSource<unknown>): Loaded<T> {
  const data = shallowRef<T | null>(null)
  const refusal = ref<Refusal | null>(null)

  let turn = 0

  async function load(): Promise<void> {
    const mine = ++turn
    try {
      const now = await fetch()
      if (mine !== turn) return
      data.value = now
      refusal.value = null
    } catch (error) {
      if (mine === turn) refusal.value = asRefusal(error)
    }
  }

  onMounted(load)
  if (of) {
    watch(of, () => {
      data.value = null
      refusal.value = null
      void load()
    })
  }
  return { data, refusal, load }
}
