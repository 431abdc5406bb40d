/** The entry line: what is typed is understood while typing, taken with Enter, and never lost. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, type Ref, ref, watch } from 'vue'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import { computeParse, type ParseAnswer, type ReadingBody, takeReading } from '@/api/generated'
import { newId } from '@/shared/newId'
import { stepHour } from '@/shared/format/clock'
import { bareFor, bareUnit } from '@/shared/format/bareUnit'
import type { JobNow } from '@/shared/state/job'
import { linkFailed, ownChange, refresh, soon } from '@/shared/state/link'
import { borePlace, keep, mustWait } from '@/shared/state/outbox'
import { nextPlace, placeKey } from '@/shared/state/places'
import { personId, unit } from '@/shared/state/preferences'

import type { BoreLine } from '@/shared/state/shelf'
import { SIZE_WITH } from '@/shared/format/lengths'
import { isClockLens } from '@/shared/subjects'

import type { BorePreview } from './faces'
import { type BlockPlace, placeAfter } from './place'
import type { Bores } from './useBores'
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
  /** What was taken last, for whoever does not see the ring. */
  said: Ref<string>
  /** Unit that a bare number takes. */
  bare: ComputedRef<ReadingBody['bare_unit']>
  preview: ComputedRef<Preview | null>
  borePreview: ComputedRef<BorePreview | null>
  type: (text: string) => void
  take: (as?: TakeAs) => Promise<void>
  /** Leave what is asked about as it stands typed: it was not recorded. */
  drop: () => void
  answer: (suggestion: Suggestion) => Promise<void>
}

/** A depth as an address holds it. */
const plain = (um: string | number | null | undefined) => (um == null ? null : String(Number(um)))

export function useEntry(job: JobNow, place: BlockPlace, bores: Bores, undo: Undo): Entry {
  const draft = useLocalStorage<Draft>(`vallo-entry-${job.jobId}`, { text: '', id: '' })
  const understood = ref<ParseAnswer | null>(null)
  const notYet = ref('')
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  const said = ref('')
  /** True when the answer to a question came from the server that keeps the reading, not from the parser. */
  let askedByTaking = false
  let turn = 0

  const quantity = computed(() => place.quantity.value ?? 'protrusion')
  const isBore = computed(() => place.lens.value === 'bore')
  const bare = computed(() =>
    isBore.value ? bareFor(!bores.deviates.value, unit.value) : bareUnit(quantity.value, unit.value),
  )
  /** What a line may name of a bore. */
  const boreLine = computed<BoreLine | undefined>(() =>
    isBore.value
      ? {
          levels: bores.levels.value.map(({ name, depth_um }) => ({ name, depth_um })),
          axes_deg: bores.axes.value,
          depth_unit: SIZE_WITH[unit.value],
          present_level_um: bores.level.value?.depth_um ?? null,
          present_axis_deg: bores.axis.value,
        }
      : undefined,
  )

  function parse(text: string, confirmed = false): Promise<ParseAnswer> {
    return ask(
      computeParse({
        body: {
          text,
          bare_unit: bare.value,
          confirmed,
          quantity: quantity.value,
          ...boreLine.value,
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
      const answer = await parse(draft.value.text)
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
    // The same words again are announced again.
    said.value = ''
  }

  async function take(as: TakeAs = {}): Promise<void> {
    if (busy.value || draft.value.text.trim() === '') return
    busy.value = true
    refusal.value = null
    draft.value.id ||= newId()
    const line = { ...draft.value }
    try {
      await undo.inTurn(() => understandAndSend(line, as))
    } catch (error) {
      const why = asRefusal(error)
      undo.took(null)
      if (why.code === 'unavailable') {
        linkFailed()
        await wait(line, as)
      } else if (draft.value.text !== '') {
        // Who emptied the line meanwhile has dropped what is refused.
        refusal.value = why
      }
    } finally {
      busy.value = false
    }
  }

  async function understandAndSend(line: Draft, as: TakeAs): Promise<void> {
    if (mustWait.value) return await wait(line, as)
    askedByTaking = false
    const parsed = await parse(line.text, as.confirmed)
    if (parsed.value_um === null) {
      if (isBore.value)
        place.go({ hole: parsed.hole, level: plain(parsed.level_um), axis: parsed.axis_deg ?? null })
      else place.go({ hole: parsed.hole, hour: parsed.hour })
      forget(line)
      return
    }
    askedByTaking = true
    await send(line, parsed, as)
  }

  /** Out of reach: the line is kept as typed, with the place chosen now, and understood when it is sent. */
  async function wait(line: Draft, as: TakeAs): Promise<void> {
    const holes = job.block.value?.holes.map((hole) => hole.number) ?? []
    const body = bodyOf(line, as, { hole: place.number.value, hour: place.hour.value, typed: line.text })
    await keep(job.jobId, body, { text: body.text, holes, bore: boreLine.value })
    forget(line)
  }

  /** What was typed on while this one was under way belongs to the next reading. */
  function forget(line: Draft): void {
    if (draft.value.id === line.id) type('')
  }

  function bodyOf(line: Draft, as: TakeAs, at: Pick<ParseAnswer, 'hole' | 'hour' | 'typed'>): ReadingBody {
    return {
      reading_id: line.id,
      quantity: quantity.value,
      hole: at.hole,
      hour: at.hour,
      text: as.text || at.typed,
      bare_unit: bare.value,
      confirmed: as.confirmed ?? false,
      read_before: as.readBefore === 'repeat' || as.readBefore === 'correct' ? as.readBefore : '',
      new_pass: as.readBefore === 'new pass',
      person_id: personId.value,
    }
  }

  async function send(line: Draft, parsed: ParseAnswer, as: TakeAs): Promise<void> {
    const typed = bodyOf(line, as, parsed)
    const body = isBore.value ? { ...typed, ...borePlace(parsed) } : typed
    const taken = await ownChange(job.jobId, () =>
      ask(takeReading({ path: { job_id: job.jobId }, body, signal: soon() })),
    )
    undo.took(taken.event)
    forget(line)
    const at = parsed.hour === null ? '' : ` at ${parsed.hour}h`
    said.value = `taken: hole ${parsed.hole ?? ''}${at}, ${parsed.typed}`
    // The gauge moves on at once: the next reading may be typed before the block is loaded again.
    if (isBore.value) nextPlaceOf(parsed)
    else nextHourOf(parsed, body.new_pass === true)
    void refresh(job.jobId)
  }

  /** The hole that is read in a new pass: what was read of it before says nothing of what is missing now. */
  let anewHole: number | null = null
  function nextHourOf(parsed: ParseAnswer, anew: boolean): void {
    const block = job.block.value
    if (!block || parsed.hole === null || !isClockLens(place.lens.value)) return
    if (anew) anewHole = parsed.hole
    const next = stepHour(block.card.required_hours, parsed.hour, 1)
    const isRound = next === stepHour(block.card.required_hours, null, 1)
    if (parsed.hole === anewHole && !isRound) return place.go({ hole: parsed.hole, hour: next })
    anewHole = null
    place.go(placeAfter(block, place.lens.value, parsed.hole, parsed.hour))
  }

  /** Down one axis and up the next, to what is missing in this bore; else it stays. */
  function nextPlaceOf(parsed: ParseAnswer): void {
    const survey = bores.data.value?.bores.find((one) => one.hole === parsed.hole)?.survey
    const { level_um = null, axis_deg = null } = parsed
    const here = { level_um, axis_deg, hour: null, along_um: null, across_um: null }
    const next = survey ? nextPlace(survey, placeKey(here), [placeKey(here)]) : null
    const to = survey?.places.find((row) => placeKey(row.place) === next)?.place ?? here
    place.go({ hole: parsed.hole, level: plain(to.level_um), axis: to.axis_deg ?? null })
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

  const borePreview = computed<BorePreview | null>(() => {
    const answer = understood.value
    if (!isBore.value || answer?.value_m == null || answer.hole === null) return null
    const level = plain(answer.level_um)
    if (level === null || answer.axis_deg == null) return null
    const value = answer.value_m + (bores.data.value?.setup?.zero_m ?? 0)
    return { hole: answer.hole, level_um: level, axis: answer.axis_deg, value }
  })
  const preview = computed<Preview | null>(() => {
    const answer = understood.value
    if (isBore.value || !answer || answer.hole === null || answer.hour === null || answer.value_m === null)
      return null
    const setup = job.block.value?.setups.find((one) => one.quantity === quantity.value)
    return { hole: answer.hole, hour: answer.hour, value: answer.value_m + (setup?.zero_m ?? 0) }
  })

  const standing = [unit, () => draft.value.text, quantity, place.number, place.hour, boreLine]
  watch(standing, () => void understand(), { immediate: true })
  return {
    draft,
    understood,
    notYet,
    refusal,
    busy,
    said,
    bare,
    preview,
    borePreview,
    type,
    take,
    drop,
    answer,
  }
}
