/** What was done to make the block ready: loaded again after every change, with everything that can be written down. */
import { onBeforeUnmount, type Ref, type ShallowRef } from 'vue'

import { ask, type Refusal } from '@/api/ask'
import {
  type FindingBody,
  type InspectionBody,
  noteFinding,
  noteInspection,
  notePrepStep,
  type PreparationView,
  type PrepStepBody,
  readPreparation,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

export interface PreparationNow {
  ready: ShallowRef<PreparationView | null>
  missing: Ref<Refusal | null>
  load: () => Promise<void>
  step: (body: Omit<PrepStepBody, 'person_id' | 'prep_step_id'>) => Promise<void>
  look: (body: Omit<InspectionBody, 'person_id' | 'inspection_id'>) => Promise<void>
  find: (body: Omit<FindingBody, 'person_id'>) => Promise<void>
}

export function usePreparation(job: JobNow): PreparationNow {
  const path = { job_id: job.jobId }
  const {
    data: ready,
    refusal: missing,
    load,
  } = useLoaded<PreparationView>(() => ask(readPreparation({ path })))
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))

  async function write(work: () => Promise<unknown>): Promise<void> {
    await ownChange(job.jobId, async () => void (await work()))
    await refresh(job.jobId)
  }
  const by = () => ({ person_id: personId.value })
  return {
    ready,
    missing,
    load,
    step: (body) =>
      write(() => ask(notePrepStep({ path, body: { ...body, prep_step_id: newId(), ...by() } }))),
    look: (body) =>
      write(() => ask(noteInspection({ path, body: { ...body, inspection_id: newId(), ...by() } }))),
    find: (body) => write(() => ask(noteFinding({ path, body: { ...body, ...by() } }))),
  }
}
