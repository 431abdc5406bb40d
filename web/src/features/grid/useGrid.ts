/** A grid that is typed into: each cell is taken when it is left, asked about where it has to be, never lost. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, reactive, ref, type Ref } from 'vue'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import { type ReadingBody, takeReading } from '@/api/generated'
import { bareUnit } from '@/shared/format/bareUnit'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { linkFailed, ownChange, refresh, soon } from '@/shared/state/link'
import { keep, mustWait } from '@/shared/state/outbox'
import { personId, unit } from '@/shared/state/preferences'
import type { Undo } from '@/shared/state/useUndo'

import type { GridCell } from './cells'

type ReadBefore = 'repeat' | 'correct' | 'new pass'

interface Typed {
  text: string
  /** Made once for what is typed, so that sending it again never doubles it. */
  id: string
}

export interface Grid {
  typed: Ref<Record<string, Typed>>
  /** Cells that are asked about, by their keys. */
  asked: Record<string, Refusal>
  /** Cells whose reading is under way. */
  underWay: ComputedRef<ReadonlySet<string>>
  /** The reading that the application took last from here. */
  lastTaken: Ref<{ id: string; name: string } | null>
  type: (cell: GridCell, text: string) => void
  take: (cell: GridCell) => Promise<void>
  takeAll: (cells: readonly GridCell[]) => Promise<void>
  answer: (cell: GridCell, suggestion: Suggestion) => Promise<void>
  answerReadBefore: (cell: GridCell, what: ReadBefore) => Promise<void>
  drop: (cell: GridCell) => void
}

export function useGrid(job: JobNow, undo: Undo): Grid {
  const typed = useLocalStorage<Record<string, Typed>>(`vallo-grid-${job.jobId}`, {})
  const asked = reactive<Record<string, Refusal>>({})
  const sending = reactive(new Set<string>())
  const lastTaken = ref<{ id: string; name: string } | null>(null)

  function type(cell: GridCell, text: string): void {
    if (text === (typed.value[cell.key]?.text ?? '')) return
    delete asked[cell.key]
    if (text.trim() === '') delete typed.value[cell.key]
    else typed.value[cell.key] = { text, id: newId() }
  }

  function bodyOf(cell: GridCell, one: Typed, confirmed: boolean, readBefore: ReadBefore | ''): ReadingBody {
    return {
      ...cell.place,
      reading_id: one.id,
      text: one.text,
      bare_unit: bareUnit(cell.place.quantity, unit.value),
      confirmed,
      read_before: readBefore === 'new pass' ? '' : readBefore,
      new_pass: readBefore === 'new pass',
      person_id: personId.value,
    }
  }

  async function send(cell: GridCell, confirmed = false, readBefore: ReadBefore | '' = ''): Promise<void> {
    const one = typed.value[cell.key]
    if (!one || sending.has(cell.key)) return
    sending.add(cell.key)
    delete asked[cell.key]
    try {
      await undo.inTurn(() => sendNow(cell, bodyOf(cell, one, confirmed, readBefore)))
    } catch (error) {
      undo.took(null)
      asked[cell.key] = asRefusal(error)
    } finally {
      sending.delete(cell.key)
    }
  }

  async function sendNow(cell: GridCell, body: ReadingBody): Promise<void> {
    if (mustWait.value) await keep(job.jobId, body)
    else {
      try {
        const taken = await ownChange(job.jobId, () =>
          ask(takeReading({ path: { job_id: job.jobId }, body, signal: soon() })),
        )
        undo.took(taken.event)
        lastTaken.value = { id: body.reading_id, name: cell.name }
        void refresh(job.jobId)
      } catch (error) {
        if (asRefusal(error).code !== 'unavailable') throw error
        linkFailed()
        await keep(job.jobId, body)
      }
    }
    // What was typed over it meanwhile is the next reading of this cell.
    if (typed.value[cell.key]?.id === body.reading_id) delete typed.value[cell.key]
  }

  /** A cell that is asked about waits for its answer: leaving it again does not ask again. */
  const take = async (cell: GridCell) => {
    if (!asked[cell.key]) await send(cell)
  }

  async function takeAll(cells: readonly GridCell[]): Promise<void> {
    for (const cell of cells) await take(cell)
  }

  async function answer(cell: GridCell, suggestion: Suggestion): Promise<void> {
    if (!suggestion.confirm) type(cell, suggestion.text)
    await send(cell, suggestion.confirm)
  }

  function drop(cell: GridCell): void {
    type(cell, '')
  }

  return {
    typed,
    asked,
    lastTaken,
    underWay: computed(() => new Set(sending)),
    type,
    take,
    takeAll,
    answer,
    answerReadBefore: (cell, what) => send(cell, false, what),
    drop,
  }
}
