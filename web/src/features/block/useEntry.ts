/** The entry line: what is typed is understood while typing, taken with Enter, and never lost. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, type Ref, ref, watch } from 'vue'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import { computeParse, type ParseAnswer, type ReadingBody, takeReading } from '@/api/generated'
import { newId } from '@/shared/newId'
import { bareUnit } from '@/shared/format/bareUnit'
import type { JobNow } from '@/shared/state/job'
import { linkFailed, ownChange, refresh, soon } from '@/shared/state/link'
import { keep, mustWait } from '@/shared/state/outbox'
import { personId, unit } from '@/shared/state/preferences'

import { type BlockPlace, placeAfter } from './place'
import type { Preview } from '@/shared/charts/rings'
import type { Undo } from '@/shared/state/useUndo'

interface Draft {
  text: string
  /** Made once for what is typed, so that sending it again never doubles it. */
  id: string
}

interface TakeAs {
  text?: string
  confirmed?: boolean
  readBefore?: '' | 'repeat' | 'correct' | 'new pass'
}

export interface Entry {
  draft: Ref<Draft>
  understood: Ref<ParseAnswer | null>
  /** Why what is typed so far is no reading; shown quietly until it is sent. */
  notYet: Ref<string>
  refusal: Ref<Refusal | null>
  busy: Ref<boolean>
  preview: ComputedRef<Preview | null>
  type: (text: string) => void
  take: (as?: TakeAs) => Promise<void>
  /** Leave what is asked about as it stands typed: it was not recorded. */
  drop: () => void
  answer: (suggestion: Suggestion) => Promise<void>
}

export function useEntry(job: JobNow, place: BlockPlace, undo: Undo): Entry {
  const draft = useLocalStorage<Draft>(`vallo-entry-${job.jobId}`, { text: '', id: '' })
  const understood = ref<ParseAnswer | null>(null)
  const notYet = ref('')
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  /** True when the answer to a question came from the server that keeps the reading, not from the parser. */
  let askedByTaking = false
  let turn = 0

  function parse(confirmed = false): Promise<ParseAnswer> {
    return ask(
      computeParse({
        body: {
          text: draft.value.text,
          bare_unit: bareUnit(place.quantity.value, unit.value),
          confirmed,
          quantity: place.quantity.value,
          holes: job.block.value?.holes.map((hole) => hole.number) ?? [],
          present_hole: place.number.value,
          present_hour: place.hour.value,
        },
      }),
    )
  }

  async function understand(): Promise<void> {
    const mine = ++turn
    if (draft.value.text.trim() === '') {
      understood.value = null
      notYet.value = ''
      return
    }
    try {
      const answer = await parse()
      if (mine !== turn) return
      understood.value = answer
      notYet.value = ''
    } catch (error) {
      if (mine !== turn) return
      understood.value = null
      notYet.value = asRefusal(error).message
    }
  }

  function type(text: string): void {
    draft.value = { text, id: newId() }
    refusal.value = null
  }

  async function take(as: TakeAs = {}): Promise<void> {
    if (busy.value || draft.value.text.trim() === '') return
    busy.value = true
    refusal.value = null
    try {
      await undo.inTurn(() => understandAndSend(as))
    } catch (error) {
      const why = asRefusal(error)
      undo.took(null)
      if (why.code !== 'unavailable') refusal.value = why
      else {
        linkFailed()
        await wait(as)
      }
    } finally {
      busy.value = false
    }
  }

  async function understandAndSend(as: TakeAs): Promise<void> {
    if (mustWait.value) return await wait(as)
    askedByTaking = false
    const parsed = await parse(as.confirmed)
    if (parsed.value_um === null) {
      place.go({ hole: parsed.hole, hour: parsed.hour })
      type('')
      return
    }
    askedByTaking = true
    await send(parsed, as)
  }

  /** Out of reach: the line is kept as typed, with the place chosen now, and understood when it is sent. */
  async function wait(as: TakeAs): Promise<void> {
    const holes = job.block.value?.holes.map((hole) => hole.number) ?? []
    const body = bodyOf(as, place.number.value, place.hour.value, draft.value.text)
    await keep(job.jobId, body, { text: as.text || draft.value.text, holes })
    type('')
  }

  function bodyOf(as: TakeAs, hole: number | null, hour: number | null, text: string): ReadingBody {
    draft.value.id ||= newId()
    return {
      reading_id: draft.value.id,
      quantity: place.quantity.value,
      hole,
      hour,
      text: as.text || text,
      bare_unit: bareUnit(place.quantity.value, unit.value),
      confirmed: as.confirmed ?? false,
      read_before: as.readBefore === 'repeat' || as.readBefore === 'correct' ? as.readBefore : '',
      new_pass: as.readBefore === 'new pass',
      person_id: personId.value,
    }
  }

  async function send(parsed: ParseAnswer, as: TakeAs): Promise<void> {
    const body = bodyOf(as, parsed.hole, parsed.hour, parsed.typed)
    const sent = body.reading_id
    const taken = await ownChange(job.jobId, () =>
      ask(takeReading({ path: { job_id: job.jobId }, body, signal: soon() })),
    )
    undo.took(taken.event)
    // What was typed on while this one was under way belongs to the next reading.
    if (draft.value.id === sent) type('')
    // The gauge moves on at once: the next reading may be typed before the block is loaded again.
    const block = job.block.value
    if (block && parsed.hole !== null) place.go(placeAfter(block, place.lens.value, parsed.hole, parsed.hour))
    void refresh(job.jobId)
  }

  async function answer(suggestion: Suggestion): Promise<void> {
    if (askedByTaking) return take({ text: suggestion.text, confirmed: suggestion.confirm })
    type(suggestion.text)
    return take({ confirmed: suggestion.confirm })
  }

  function drop(): void {
    refusal.value = null
    undo.said.value = 'nothing: it was not recorded'
  }

  const preview = computed<Preview | null>(() => {
    const answer = understood.value
    if (!answer || answer.hole === null || answer.hour === null || answer.value_m === null) return null
    const setup = job.block.value?.setups.find((one) => one.quantity === place.quantity.value)
    return { hole: answer.hole, hour: answer.hour, value: answer.value_m + (setup?.zero_m ?? 0) }
  })

  watch([unit, () => draft.value.text, place.quantity, place.number, place.hour], () => void understand(), {
    immediate: true,
  })
  return { draft, understood, notYet, refusal, busy, preview, type, take, drop, answer }
}
