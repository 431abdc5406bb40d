/** Every bore against the ladder: loaded for the job, and again after every change, with what can be decided. */
import { onBeforeUnmount, type Ref, type ShallowRef } from 'vue'

import { ask, type Refusal } from '@/api/ask'
import {
  type CleanUpView,
  decideBore,
  type DecisionBody,
  lookAtBore,
  type LookBody,
  readCleanUp,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

export interface CleanUpNow {
  data: ShallowRef<CleanUpView | null>
  refusal: Ref<Refusal | null>
  /** What several bores are given, one after the other as one change. */
  decide: (bodies: Omit<DecisionBody, 'person_id' | 'decision_id'>[]) => Promise<void>
  look: (body: Omit<LookBody, 'person_id' | 'look_id'>) => Promise<void>
}

export function useCleanUp(job: JobNow): CleanUpNow {
  const path = { job_id: job.jobId }
  const { data, refusal, load } = useLoaded<CleanUpView>(() => ask(readCleanUp({ path })))
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  async function write(work: () => Promise<unknown>): Promise<void> {
    await ownChange(job.jobId, async () => void (await work()))
    await refresh(job.jobId)
    await load()
  }
  const by = () => ({ person_id: personId.value })
  return {
    data,
    refusal,
    decide: (bodies) =>
      write(async () => {
        for (const body of bodies)
          await ask(decideBore({ path, body: { ...body, decision_id: newId(), ...by() } }))
      }),
    look: (body) => write(() => ask(lookAtBore({ path, body: { ...body, look_id: newId(), ...by() } }))),
  }
}
