/** The block of the job at hand, loaded once for all views of the job and kept fresh. */
import { inject, type InjectionKey, onBeforeUnmount, type Ref, ref, shallowRef } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type BlockView, readBlock } from '@/api/generated'

import { linkFailed, onChange } from './link'
import { shelf } from './shelf'

export interface JobNow {
  jobId: string
  block: Ref<BlockView | null>
  /** When the block was seen last, where it cannot be loaded now. [ms] */
  seenAt: Ref<number | null>
  refusal: Ref<Refusal | null>
  /** Load again; a newer answer is never replaced by an older one. */
  reload: () => Promise<void>
}

export const JOB: InjectionKey<JobNow> = Symbol('job')

export function useJobLoading(jobId: string): JobNow {
  const block = shallowRef<BlockView | null>(null)
  const seenAt = ref<number | null>(null)
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
      seenAt.value = null
      refusal.value = null
      await remember(now)
    } catch (error) {
      if (turn >= answered) await unanswered(asRefusal(error))
    }
  }

  /** Out of reach, the block as it was seen last is better than none. */
  async function unanswered(why: Refusal): Promise<void> {
    if (why.code === 'unavailable') {
      linkFailed()
      const seen = await (await shelf()).get('blocks', jobId).catch(() => undefined)
      if (seen) {
        block.value ??= seen.block
        seenAt.value = seen.seenAt
        refusal.value = null
        return
      }
    }
    refusal.value = why
  }

  async function remember(now: BlockView): Promise<void> {
    const seen = { jobId, block: now, seenAt: Date.now() }
    await (await shelf()).put('blocks', seen).catch(() => undefined)
  }

  const stop = onChange((changed) => (changed === null || changed === jobId ? reload() : undefined))
  onBeforeUnmount(stop)
  return { jobId, block, seenAt, refusal, reload }
}

function essence(block: BlockView): string {
  return JSON.stringify([block.liners, block.route, block.card, block.setups])
}

/** Liners, route, card and gauges change without a new event. */
function changed(before: BlockView | null, now: BlockView): boolean {
  if (before === null) return true
  return essence(before) !== essence(now)
}

export function useJob(): JobNow {
  const job = inject(JOB)
  if (!job) throw new Error('This view belongs inside a job.')
  return job
}
