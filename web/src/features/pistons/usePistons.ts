/** The match sheet of a job: loaded, and again after every change. */
import { onBeforeUnmount, type Ref, type ShallowRef } from 'vue'

import { ask, type Refusal } from '@/api/ask'
import { type MatchBody, type MatchSheetView, readMatchSheet, recordPistonMatch } from '@/api/generated'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

export interface PistonsNow {
  sheet: ShallowRef<MatchSheetView | null>
  refusal: Ref<Refusal | null>
  match: (hole: number, typed: Omit<MatchBody, 'match_id' | 'person_id'>) => Promise<void>
}

export function usePistons(job: JobNow): PistonsNow {
  const path = { job_id: job.jobId }
  const { data: sheet, refusal, load } = useLoaded<MatchSheetView>(() => ask(readMatchSheet({ path })))
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  // An id is kept until it is taken: sent again after a lost answer it is the same mark.
  let id = newId()
  return {
    sheet,
    refusal,
    async match(hole, typed) {
      await ownChange(job.jobId, async () => {
        const body = { ...typed, match_id: id, person_id: personId.value }
        sheet.value = await ask(recordPistonMatch({ path: { ...path, hole }, body }))
        id = newId()
      })
    },
  }
}
