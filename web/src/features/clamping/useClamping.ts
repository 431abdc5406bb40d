/** Plate and caps of a job: loaded, and again after every change. */
import { onBeforeUnmount, type Ref, ref, type ShallowRef } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  beginTightening,
  type BoltMarkKind,
  type ClampingView,
  markBolt,
  readClamping,
  takeClampOff,
  type TighteningBody,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useLoaded } from '@/shared/state/useLoaded'
import type { Undo } from '@/shared/state/useUndo'

export interface ClampingNow {
  view: ShallowRef<ClampingView | null>
  missing: Ref<Refusal | null>
  refusal: Ref<Refusal | null>
  busy: Ref<boolean>
  begin: (typed: Omit<TighteningBody, 'tightening_id' | 'person_id'>) => Promise<void>
  turn: (id: string, bolt: number, kind: BoltMarkKind, torque: string) => Promise<void>
  off: (id: string) => Promise<void>
}

export function useClamping(job: JobNow, undo: Undo): ClampingNow {
  const path = { job_id: job.jobId }
  const { data: view, refusal: missing, load } = useLoaded<ClampingView>(() => ask(readClamping({ path })))
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  // Ids are kept until they are taken: sent again after a lost answer it is the same step.
  let [tightening, mark] = [newId(), newId()]

  async function write(work: () => Promise<ClampingView>): Promise<void> {
    if (busy.value) return
    refusal.value = null
    busy.value = true
    try {
      await ownChange(job.jobId, async () => void (view.value = await work()))
      mark = newId()
      undo.did()
    } catch (error) {
      refusal.value = asRefusal(error)
      if (refusal.value.code === 'stale') await load()
    } finally {
      busy.value = false
    }
  }
  return {
    view,
    missing,
    refusal,
    busy,
    async begin(typed) {
      await ownChange(job.jobId, async () => {
        const body = { ...typed, tightening_id: tightening, person_id: personId.value }
        view.value = await ask(beginTightening({ path, body }))
        tightening = newId()
        undo.did()
      })
    },
    turn: (id, bolt, kind, torque) =>
      write(async () => {
        const body = { bolt_mark_id: mark, bolt, kind, torque, person_id: personId.value }
        const now = await ask(markBolt({ path: { ...path, tightening_id: id }, body }))
        const next = now.tightenings.find((one) => one.tightening_id === id)
        tell(next?.bolt ? String(next.bolt) : 'tight', true)
        return now
      }),
    off: (id) =>
      write(() =>
        ask(
          takeClampOff({
            path: { ...path, tightening_id: id },
            body: { bolt_mark_id: mark, person_id: personId.value },
          }),
        ),
      ),
  }
}
