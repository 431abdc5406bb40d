/** Printing the proof as PDF: it takes a while, says how long, and can be given up. */
import { type Ref, ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { readProofPdf } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { type Stoppable, useStoppable } from '@/shared/state/useStoppable'

export interface Printing {
  waiting: Stoppable
  refusal: Ref<Refusal | null>
  print: () => Promise<void>
}

export function usePrinting(jobId: string, unit: () => 'thou' | 'um', name: () => string): Printing {
  const refusal = ref<Refusal | null>(null)
  const waiting = useStoppable()

  async function print(): Promise<void> {
    refusal.value = null
    try {
      const query = { unit: unit(), person_id: personId.value }
      const pdf = await waiting.run((signal) =>
        ask(readProofPdf({ path: { job_id: jobId }, query, signal, parseAs: 'blob' as const })),
      )
      if (pdf) save(pdf)
    } catch (error) {
      refusal.value = asRefusal(error)
    }
  }

  function save(pdf: Blob): void {
    const link = document.createElement('a')
    link.href = URL.createObjectURL(pdf)
    link.download = name()
    link.click()
    URL.revokeObjectURL(link.href)
  }

  return { waiting, refusal, print }
}
