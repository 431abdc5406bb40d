/** Undo strikes what was just recorded, or restores what was just struck; nothing is erased. */
import { ref, type Ref } from 'vue'

import { ask, asRefusal, Refusal } from '@/api/ask'
import { strike } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { ownChange, refresh } from '@/shared/state/link'
import { takeBack } from '@/shared/state/outbox'
import { person } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'

/** What takes one thing back. */
type Step = () => Promise<void>

export interface Undo {
  refusal: Ref<Refusal | null>
  took: (row: string, struckWithIt: string[]) => void
  /** Something was recorded that is no row to strike; ``back`` records that it does not hold. */
  did: (back: Step) => void
  /** Recording and undoing one after the other: whoever undoes at once means what is still under way. */
  inTurn: <T>(work: () => Promise<T>) => Promise<T>
  setStruck: (row: string, struck: boolean, reason: string) => Promise<void>
  /** Whether anything was undone. */
  undo: () => Promise<boolean>
}

export function useUndo(job: JobNow): Undo {
  const steps: Step[] = []
  const refusal = ref<Refusal | null>(null)
  let underWay: Promise<unknown> = Promise.resolve()

  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    const mine = underWay.then(work, work)
    underWay = mine
    return mine
  }

  function took(row: string, struckWithIt: string[]): void {
    // What is sent is sent: after a link that broke half-way only the rest is left to do.
    const left = [
      () => send(row, true, 'undone'),
      ...struckWithIt.map((other) => () => send(other, false, 'correction undone')),
    ]
    steps.push(async () => {
      for (let next = left[0]; next; next = left[0]) {
        await next()
        left.shift()
      }
    })
  }

  async function send(row: string, struck: boolean, reason: string): Promise<void> {
    const body = { struck, reason, person_id: personId.value }
    await ownChange(job.jobId, () => ask(strike({ path: { row_id: row }, body })))
  }

  async function strikeNow(row: string, struck: boolean, reason: string): Promise<void> {
    try {
      await send(row, struck, reason)
      steps.push(() => send(row, !struck, 'undone'))
      refusal.value = null
    } catch (error) {
      refusal.value = asRefusal(error)
    }
    await refresh(job.jobId)
  }

  async function undoNow(): Promise<boolean> {
    refusal.value = null
    if (await takeBack(job.jobId)) return true
    const last = steps.pop() ?? newest()
    if (!last) {
      refusal.value = new Refusal(
        'nothing',
        `Nothing that ${person.value?.name ?? 'you'} recorded is left to undo.`,
      )
      return false
    }
    try {
      await last()
    } catch (error) {
      refusal.value = asRefusal(error)
      // Out of reach nothing was undone: the same step is next, not the one before it.
      if (refusal.value.code === 'unavailable') steps.push(last)
    }
    await refresh(job.jobId)
    return refusal.value === null
  }

  /** After a reload there is no list of steps: undone is the newest thing standing of who works here, nobody else's. */
  function newest(): Step | null {
    const block = job.block.value
    const rows = [
      ...(block?.readings ?? []).map((row) => ({
        row: row.reading_id,
        by: row.taken_by,
        event: row.event,
        struck: row.struck,
      })),
      ...(block?.done ?? []).map((row) => ({
        row: row.row_id,
        by: row.done_by,
        event: row.event,
        struck: row.struck,
      })),
      ...(block?.notes ?? []).map((row) => ({
        row: row.note_id,
        by: row.made_by,
        event: row.event,
        struck: row.struck,
      })),
    ].filter((row) => !row.struck && row.by === person.value?.name)
    const last = rows.sort((a, b) => a.event - b.event).at(-1)
    return last ? () => send(last.row, true, 'undone') : null
  }

  return {
    refusal,
    took,
    did: (back) => void steps.push(back),
    inTurn,
    setStruck: (row, struck, reason) => inTurn(() => strikeNow(row, struck, reason)),
    undo: () => inTurn(undoNow),
  }
}
