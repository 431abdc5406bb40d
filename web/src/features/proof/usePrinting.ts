/** Printing the proof as PDF: it takes a while, says how long, and can be given up. */
import { useIntervalFn } from '@vueuse/core'
import { onBeforeUnmount, type Ref, ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { readProofPdf } from '@/api/generated'

export interface Printing {
  /** For how long it has been printed, null while it is not. [s] */
  seconds: Ref<number | null>
  refusal: Ref<Refusal | null>
  print: () => Promise<void>
  cancel: () => void
}

export function usePrinting(jobId: string, unit: () => 'thou' | 'um', name: () => string): Printing {
  const seconds = ref<number | null>(null)
  const refusal = ref<Refusal | null>(null)
  let stop: AbortController | null = null
  useIntervalFn(() => {
    if (seconds.value !== null) seconds.value++
  }, 1000)

  async function print(): Promise<void> {
    if (stop !== null) return
    stop = new AbortController()
    const mine = stop
    seconds.value = 0
    refusal.value = null
    try {
      const query = { unit: unit() }
      const request = { path: { job_id: jobId }, query, signal: mine.signal, parseAs: 'blob' as const }
      save(await ask(readProofPdf(request)))
    } catch (error) {
      if (!mine.signal.aborted) refusal.value = asRefusal(error)
    } finally {
      if (stop === mine) {
        stop = null
        seconds.value = null
      }
    }
  }

  function save(pdf: Blob): void {
    const link = document.createElement('a')
    link.href = URL.createObjectURL(pdf)
    link.download = name()
    link.click()
    URL.revokeObjectURL(link.href)
  }

  function cancel(): void {
    stop?.abort()
    stop = null
    seconds.value = null
  }
  onBeforeUnmount(cancel)
  return { seconds, refusal, print, cancel }
}
