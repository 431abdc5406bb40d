/** Undo says what it will take back, and takes back only that: the newest step of who works here that still holds. */
import { computed, type ComputedRef, inject, type InjectionKey, onBeforeUnmount, ref, type Ref } from 'vue'

import { ask, asRefusal, Refusal } from '@/api/ask'
import { strike, undo as undoStep } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { ownChange, refresh } from '@/shared/state/link'
import { takeBack, waitingFor, waitingWords } from '@/shared/state/outbox'
import { person } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'

/** What is looked at: a step on another part is asked about before it is taken back. */
export interface Here {
  hole: number | null
  part: string
}

/** What Undo takes back next; ``event`` is null for a reading that still waits in this browser. */
export interface NextUndo {
  event: number | null
  words: string
  elsewhere: boolean
}

export interface Undo {
  next: ComputedRef<NextUndo | null>
  refusal: Ref<Refusal | null>
  /** What was taken back last, until something else happens. */
  said: Ref<string>
  /** The step that lies elsewhere, while it is asked about. */
  asking: Ref<NextUndo | null>
  underWay: Ref<boolean>
  /** A reading of this page was recorded, or refused: null. What was taken here last is what Undo means. */
  took: (event: number | null) => void
  /** Something else of this page was recorded: a place that cannot be read, a note. */
  did: () => void
  /** Recording and undoing one after the other: whoever undoes at once means what is still under way. */
  inTurn: <T>(work: () => Promise<T>) => Promise<T>
  setStruck: (event: number, struck: boolean, reason: string) => Promise<void>
  /** Whether anything was undone. ``sure`` answers what was asked. */
  undo: (sure?: boolean) => Promise<boolean>
  leave: () => void
  standAt: (here: (() => Here) | null) => void
}

export const UNDO: InjectionKey<Undo> = Symbol('undo')

export function useUndo(job: JobNow): Undo {
  const refusal = ref<Refusal | null>(null)
  const said = ref('')
  const asking = ref<NextUndo | null>(null)
  const pending = ref(0)
  const here = ref<(() => Here) | null>(null)
  const takenHere = ref<number | null>(null)
  let turn: Promise<unknown> = Promise.resolve()
  /** Something was recorded here since the last undo: the newest step is what is meant, shown already or not. */
  let recorded = false

  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    pending.value++
    refusal.value = null
    asking.value = null
    said.value = ''
    const mine = turn.then(work, work)
    turn = mine.then(
      () => pending.value--,
      () => pending.value--,
    )
    return mine
  }

  function isElsewhere(hole: number | null, part: string): boolean {
    if (here.value === null || (hole === null && part === '')) return false
    const at = here.value()
    if (at.hole === null && at.part === '') return false
    const liner = job.block.value?.liners.find((one) => `liner-${one.liner.mark}` === part)
    const holeOf = hole ?? liner?.hole ?? null
    return part !== at.part && (holeOf === null || holeOf !== at.hole)
  }

  const next = computed<NextUndo | null>(() => {
    const kept = waitingFor(job.jobId).at(-1)
    if (kept) return { event: null, words: `${waitingWords(kept)}, still waiting`, elsewhere: false }
    const step = job.block.value?.undo.find((one) => one.by === person.value?.name)
    if (!step) return null
    const elsewhere = step.event !== takenHere.value && isElsewhere(step.hole, step.part)
    return { event: step.event, words: step.words, elsewhere }
  })

  async function setStruckNow(event: number, struck: boolean, reason: string): Promise<void> {
    try {
      const body = { struck, reason, person_id: personId.value }
      await ownChange(job.jobId, () => ask(strike({ path: { job_id: job.jobId, event }, body })))
      recorded = true
    } catch (error) {
      refusal.value = asRefusal(error)
    }
    await refresh(job.jobId)
  }

  async function undoNow(sure: boolean): Promise<boolean> {
    if (recorded) {
      recorded = false
      await job.reload()
      takenHere.value = next.value?.event ?? null
    }
    const step = next.value
    if (step === null) {
      refusal.value = new Refusal(
        'nothing',
        `Nothing that ${person.value?.name ?? 'you'} recorded is left to undo.`,
      )
      return false
    }
    if (step.elsewhere && !sure) {
      asking.value = step
      return false
    }
    try {
      if (step.event === null) await takeBack(job.jobId)
      else await send(step.event)
      said.value = step.words
    } catch (error) {
      refusal.value = asRefusal(error)
    }
    if (step.event !== null) await refresh(job.jobId)
    return refusal.value === null
  }

  async function send(event: number): Promise<void> {
    const body = { event, person_id: personId.value }
    await ownChange(job.jobId, () => ask(undoStep({ path: { job_id: job.jobId }, body })))
  }

  return {
    next,
    refusal,
    said,
    asking,
    underWay: computed(() => pending.value > 0),
    took: (event) => {
      takenHere.value = event
      recorded = event !== null
    },
    did: () => (recorded = true),
    inTurn,
    setStruck: (event, struck, reason) => inTurn(() => setStruckNow(event, struck, reason)),
    undo: (sure = false) => inTurn(() => undoNow(sure)),
    leave: () => (asking.value = null),
    standAt: (at) => (here.value = at),
  }
}

/** The one Undo of a job; a view that looks at one part of the block says at which. */
export function useJobUndo(here: (() => Here) | null = null): Undo {
  const undo = inject(UNDO)
  if (!undo) throw new Error('This view belongs inside a job.')
  if (here !== null) {
    undo.standAt(here)
    onBeforeUnmount(() => undo.standAt(null))
  }
  return undo
}
