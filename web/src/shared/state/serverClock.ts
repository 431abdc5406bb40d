/** The server's time between its answers, by this machine's steady clock: true over sleep, reload and a wrong watch. */
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, type ComputedRef, type Ref, ref, shallowRef, watch } from 'vue'

/** The steady clock may stand still while a machine sleeps: then both clocks part, and the server is asked. */
const APART_MS = 1_500
const LOOK_MS = 100

/** ``told`` is what the server said its time was, when it answered; ``ask`` asks it again. Milliseconds. */
export function useServerClock(told: Ref<string | null>, ask: () => unknown): ComputedRef<number> {
  const steady = ref(performance.now())
  const anchor = shallowRef({ server: Date.now(), steady: steady.value, watch: Date.now() })
  watch(
    told,
    (said) => {
      if (said === null) return
      steady.value = performance.now()
      anchor.value = { server: Date.parse(said), steady: steady.value, watch: Date.now() }
    },
    { immediate: true, flush: 'sync' },
  )

  useIntervalFn(() => {
    const now = performance.now()
    const apart = Date.now() - anchor.value.watch - (now - anchor.value.steady)
    if (Math.abs(apart) > APART_MS) {
      // It slept, or its watch was set. Until the server answers, time that went by unseen went by.
      const { server, watch: seen } = anchor.value
      anchor.value = { ...anchor.value, server: server + Math.max(0, apart), watch: seen + apart }
      void ask()
    }
    steady.value = now
  }, LOOK_MS)
  useEventListener(document, 'visibilitychange', () => {
    if (document.visibilityState === 'visible') void ask()
  })
  return computed(() => anchor.value.server + (steady.value - anchor.value.steady))
}
