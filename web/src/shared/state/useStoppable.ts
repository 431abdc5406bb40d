/** Something that takes a while: says how long it has been under way, and can be given up. */
import { useIntervalFn } from '@vueuse/core'
import { onBeforeUnmount, type Ref, ref } from 'vue'

export interface Stoppable {
  /** For how long it has been under way, null while it is not. [s] */
  seconds: Ref<number | null>
  /** Do it; null where it was given up, or is under way already. */
  run: <T>(work: (signal: AbortSignal) => Promise<T>) => Promise<T | null>
  stop: () => void
}

export function useStoppable(): Stoppable {
  const seconds = ref<number | null>(null)
  let current: AbortController | null = null
  useIntervalFn(() => {
    if (seconds.value !== null) seconds.value++
  }, 1000)

  async function run<T>(work: (signal: AbortSignal) => Promise<T>): Promise<T | null> {
    if (current !== null) return null
    const mine = new AbortController()
    current = mine
    seconds.value = 0
    try {
      const done = await work(mine.signal)
      return mine.signal.aborted ? null : done
    } catch (error) {
      if (mine.signal.aborted) return null
      throw error
    } finally {
      if (current === mine) {
        current = null
        seconds.value = null
      }
    }
  }

  function stop(): void {
    current?.abort()
    current = null
    seconds.value = null
  }
  onBeforeUnmount(stop)
  return { seconds, run, stop }
}
