/** The block of the job at hand, loaded once for all views of the job and kept fresh. */
import { useIntervalFn, useWindowFocus } from '@vueuse/core'
import { inject, type InjectionKey, type Ref, ref, shallowRef, watch } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type BlockView, readBlock } from '@/api/generated'

export interface JobNow {
  jobId: string
  block: Ref<BlockView | null>
  refusal: Ref<Refusal | null>
  /** Load again; a newer answer is never replaced by an older one. */
  reload: () => Promise<void>
}

export const JOB: InjectionKey<JobNow> = Symbol('job')
/** Readings of another bench appear within this time. */
const REFRESH_MS = 5000

export function useJobLoading(jobId: string): JobNow {
  const block = shallowRef<BlockView | null>(null)
  const refusal = ref<Refusal | null>(null)
  let asked = 0
  let answered = 0

  async function reload(): Promise<void> {
    const turn = ++asked
    try {
      const now = await ask(readBlock({ path: { job_id: jobId } }))
      if (turn < answered) return
      answered = turn
      if (block.value?.event !== now.event || changed(block.value, now)) block.value = now
      refusal.value = null
    } catch (error) {
      if (turn >= answered) refusal.value = asRefusal(error)
    }
  }

  const focused = useWindowFocus()
  useIntervalFn(() => {
    if (document.visibilityState === 'visible') void reload()
  }, REFRESH_MS)
  watch(focused, (now) => {
    if (now) void reload()
  })
  return { jobId, block, refusal, reload }
}

function essence(block: BlockView): string {
  return JSON.stringify([block.liners, block.stages, block.card, block.setups])
}

/** Liners, stages, card and gauges change without a new event. */
function changed(before: BlockView | null, now: BlockView): boolean {
  if (before === null) return true
  return essence(before) !== essence(now)
}

export function useJob(): JobNow {
  const job = inject(JOB)
  if (!job) throw new Error('This view belongs inside a job.')
  return job
}
