/** The entry line: what is typed is understood while typing, taken with Enter, and never lost. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, type Ref, ref, watch } from 'vue'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import { computeParse, type ParseAnswer, takeReading } from '@/api/generated'
import { bareUnit } from '@/shared/format/bareUnit'
import type { JobNow } from '@/shared/state/job'
import { personId, unit } from '@/shared/state/preferences'
import { standingAt } from '@/shared/state/standing'

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
    draft.value = { text, id: crypto.randomUUID() }
    refusal.value = null
  }

  async function take(as: TakeAs = {}): Promise<void> {
    if (busy.value || draft.value.text.trim() === '') return
    busy.value = true
    refusal.value = null
    try {
      askedByTaking = false
      const parsed = await parse(as.confirmed)
      if (parsed.value_um === null) {
        place.go({ hole: parsed.hole, hour: parsed.hour })
        type('')
        return
      }
      askedByTaking = true
      await send(parsed, as)
    } catch (error) {
      refusal.value = asRefusal(error)
    } finally {
      busy.value = false
    }
  }

  async function send(parsed: ParseAnswer, as: TakeAs): Promise<void> {
    const before = standingAt(job.block.value, place.quantity.value, parsed.hole, parsed.hour)
    draft.value.id ||= crypto.randomUUID()
    const sent = draft.value.id
    const taken = await ask(
      takeReading({
        path: { job_id: job.jobId },
        body: {
          reading_id: sent,
          quantity: place.quantity.value,
          hole: parsed.hole,
          hour: parsed.hour,
          text: as.text || parsed.typed,
          bare_unit: bareUnit(place.quantity.value, unit.value),
          confirmed: as.confirmed ?? false,
          read_before: as.readBefore === 'repeat' || as.readBefore === 'correct' ? as.readBefore : '',
          new_pass: as.readBefore === 'new pass',
          person_id: personId.value,
        },
      }),
    )
    undo.took(taken.reading_id, as.readBefore === 'correct' ? before : [])
    // What was typed on while this one was under way belongs to the next reading.
    if (draft.value.id === sent) type('')
    // The gauge moves on at once: the next reading may be typed before the block is loaded again.
    const block = job.block.value
    if (block && parsed.hole !== null) place.go(placeAfter(block, place.lens.value, parsed.hole, parsed.hour))
    void job.reload()
  }

  async function answer(suggestion: Suggestion): Promise<void> {
    if (askedByTaking) return take({ text: suggestion.text, confirmed: suggestion.confirm })
    type(suggestion.text)
    return take({ confirmed: suggestion.confirm })
  }

  const preview = computed<Preview | null>(() => {
    const answer = understood.value
    if (!answer || answer.hole === null || answer.hour === null || answer.value_m === null) return null
    return { hole: answer.hole, hour: answer.hour, value: answer.value_m }
  })

  watch([unit, () => draft.value.text, place.quantity, place.number, place.hour], () => void understand(), {
    immediate: true,
  })
  return { draft, understood, notYet, refusal, busy, preview, type, take, answer }
}
