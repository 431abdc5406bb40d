/** The route of a job: loaded again after every change, with everything that can be written down on it. */
import { onBeforeUnmount, type Ref, ref, type ShallowRef } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  chooseSchool,
  endWait,
  markOperation,
  type MarkKind,
  noteWait,
  type Operation,
  readRoute,
  type RouteView,
  runClock,
  type SchoolChangeView,
  type WaitBody,
} from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

export interface Marked {
  operation: Operation
  hole: number | null
  kind: MarkKind
  words: string
  count: number | null
  hold_reason: string
}

export interface RouteNow {
  route: ShallowRef<RouteView | null>
  /** Why the route is not there. */
  missing: Ref<Refusal | null>
  /** Why what was asked for last was not done. */
  refusal: Ref<Refusal | null>
  /** Another operation is looked at: what was refused before does not stand beside it. */
  forget: () => void
  mark: (marked: Marked) => Promise<boolean>
  clock: (operation: Operation, running: boolean) => Promise<boolean>
  wait: (body: Omit<WaitBody, 'person_id'>) => Promise<boolean>
  ended: (waitId: string, words: string) => Promise<boolean>
  preview: (question: string, side: string) => Promise<SchoolChangeView | null>
  choose: (question: string, side: string, reason: string) => Promise<boolean>
}

export function useRoute(job: JobNow): RouteNow {
  const path = { job_id: job.jobId }
  const { data: route, refusal: missing, load } = useLoaded<RouteView>(() => ask(readRoute({ path })))
  const refusal = ref<Refusal | null>(null)
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))

  /** One thing written down: the route and the block of everybody are loaded again with it. */
  async function write(work: () => Promise<unknown>): Promise<boolean> {
    refusal.value = null
    try {
      await ownChange(job.jobId, async () => void (await work()))
      await refresh(job.jobId)
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      return false
    }
  }
  const by = () => ({ person_id: personId.value })
  const school = (question: string, side: string, reason: string, only_preview: boolean) =>
    ask(chooseSchool({ path, body: { question, side, reason, only_preview, ...by() } }))

  async function preview(question: string, side: string): Promise<SchoolChangeView | null> {
    refusal.value = null
    try {
      return await school(question, side, '', true)
    } catch (error) {
      refusal.value = asRefusal(error)
      return null
    }
  }

  return {
    route,
    missing,
    refusal,
    forget: () => (refusal.value = null),
    mark: (marked) => write(() => ask(markOperation({ path, body: { ...marked, ...by() } }))),
    clock: (operation, running) =>
      write(() => ask(runClock({ path, body: { operation, running, ...by() } }))),
    wait: (body) => write(() => ask(noteWait({ path, body: { ...body, ...by() } }))),
    ended: (wait_id, words) =>
      write(() => ask(endWait({ path: { ...path, wait_id }, body: { words, ...by() } }))),
    preview,
    choose: (question, side, reason) => write(() => school(question, side, reason, false)),
  }
}
