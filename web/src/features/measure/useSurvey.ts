/** One survey at the bench: a place to read now, taken from the gauge or typed, then the next one by itself. */
import { computed, type ComputedRef, onBeforeUnmount, ref, type Ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import {
  markPlaceUnreadable,
  type PlaceReadView,
  type Quantity,
  type ReadingBody,
  readSurvey,
  type SurveyView,
} from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import type { JobNow } from '@/shared/state/job'
import { linkFailed, onChange } from '@/shared/state/link'
import { waitingFor } from '@/shared/state/outbox'
import { personId, unit } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useSender } from '@/shared/state/useSender'
import { type Taken, useTaken } from '@/shared/state/useTaken'
import type { Undo } from '@/shared/state/useUndo'

import { missingPlaces, movePlace, nextPlace, placeKey, stepPlace, type Way } from './places'

type ReadBefore = '' | 'repeat' | 'correct' | 'new pass'
interface TakeAs {
  text: string
  confirmed?: boolean
  readBefore?: ReadBefore
}

export interface SurveyBench {
  survey: Ref<SurveyView | null>
  quantity: ComputedRef<Quantity>
  partKey: ComputedRef<string>
  at: ComputedRef<string | null>
  here: ComputedRef<PlaceReadView | null>
  missing: ComputedRef<PlaceReadView[]>
  liner: Ref<string>
  taken: Taken
  refusal: Ref<Refusal | null>
  /** Readings are deviations from a set size, in small units. */
  deviates: ComputedRef<boolean>
  load: () => Promise<void>
  go: (key: string | null) => Promise<void>
  step: (by: 1 | -1) => void
  move: (way: Way) => void
  take: (as: TakeAs) => Promise<boolean>
  again: (answer: Suggestion | ReadBefore) => Promise<boolean>
  takeBack: () => Promise<void>
  sayUnreadable: (unreadable: boolean, reason: string) => Promise<boolean>
}

export function useSurvey(job: JobNow, undo: Undo): SurveyBench {
  const route = useRoute()
  const router = useRouter()
  const quantity = computed(() => String(route.params['quantity']) as Quantity)
  const partKey = computed(() => String(route.params['part']))
  const survey = shallowRef<SurveyView | null>(null)
  const refusal = ref<Refusal | null>(null)
  const taken = useTaken(undo)
  const liner = ref('')
  let asked: TakeAs | null = null
  const sender = useSender(job.jobId)
  let busy = false
  let turn = 0

  async function load(): Promise<void> {
    const mine = ++turn
    try {
      const path = { job_id: job.jobId, quantity: quantity.value, part: partKey.value }
      const now = await ask(readSurvey({ path }))
      if (mine === turn) survey.value = now
    } catch (error) {
      if (mine !== turn) return
      if (asRefusal(error).code === 'unavailable') linkFailed()
      else refusal.value = asRefusal(error)
    }
  }
  watch(
    [quantity, partKey],
    () => {
      survey.value = null
      refusal.value = null
      taken.forget()
      void load()
    },
    { immediate: true },
  )
  const stop = onChange((changed) => {
    if (changed === null || changed === job.jobId) void load()
  })
  onBeforeUnmount(stop)

  const waiting = computed(() =>
    waitingFor(job.jobId)
      .filter((one) => one.body.quantity === quantity.value && one.body.part === partKey.value)
      .map((one) => placeKey(one.body)),
  )
  const at = computed(() => {
    if (typeof route.query['at'] === 'string') return route.query['at']
    if (!survey.value) return null
    const first = survey.value.places[0]
    return nextPlace(survey.value, null, waiting.value) ?? (first ? placeKey(first.place) : null)
  })
  const here = computed(() => survey.value?.places.find((row) => placeKey(row.place) === at.value) ?? null)
  const missing = computed(() => (survey.value ? missingPlaces(survey.value, waiting.value) : []))
  const deviates = computed(() => (survey.value?.setup?.zeroed_on ?? 'datum') !== 'datum')

  async function go(key: string | null): Promise<void> {
    refusal.value = null
    await router.replace({ query: key === null ? {} : { at: key } })
  }
  const step = (by: 1 | -1) => survey.value && void go(stepPlace(survey.value, at.value, by))
  const move = (way: Way) => survey.value && void go(movePlace(survey.value, at.value, way))

  async function take(as: TakeAs): Promise<boolean> {
    const row = here.value
    if (row === null || survey.value === null || busy) return false
    busy = true
    refusal.value = null
    taken.forget()
    asked = as
    const readBefore = as.readBefore === 'repeat' || as.readBefore === 'correct' ? as.readBefore : ''
    const struckWithIt = readBefore === 'correct' ? row.readings.map((one) => one.reading_id) : []
    try {
      const body: Omit<ReadingBody, 'reading_id'> = {
        quantity: quantity.value,
        part: partKey.value,
        liner_mark: liner.value,
        ...row.place,
        text: as.text,
        bare_unit: bareFor(survey.value.is_size && !deviates.value, unit.value),
        confirmed: as.confirmed ?? false,
        read_before: readBefore,
        new_pass: as.readBefore === 'new pass',
        person_id: personId.value,
      }
      const key = JSON.stringify([partKey.value, at.value, as])
      const sent = await undo.inTurn(async () => {
        const now = await sender.send(key, body)
        if (now.readingId) undo.took(now.readingId, struckWithIt)
        return now
      })
      await settle(row, sent.words, sent.readingId)
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      tell(refusal.value.message, false)
      return false
    } finally {
      busy = false
    }
  }

  async function settle(row: PlaceReadView, words: string, readingId = ''): Promise<void> {
    taken.say(row.name, words, readingId)
    await load()
    const key = placeKey(row.place)
    // The next pedal counts once the bench stands at the next place.
    await go((survey.value && nextPlace(survey.value, key, waiting.value)) ?? key)
  }

  async function takeBack(): Promise<void> {
    refusal.value = await taken.takeBack()
    await load()
  }

  function again(answer: Suggestion | ReadBefore): Promise<boolean> {
    if (asked === null) return Promise.resolve(false)
    if (typeof answer === 'string') return take({ ...asked, readBefore: answer })
    return take({ ...asked, text: answer.text || asked.text, confirmed: answer.confirm })
  }

  async function sayUnreadable(unreadable: boolean, reason: string): Promise<boolean> {
    const row = here.value
    if (row === null) return false
    const path = { job_id: job.jobId, quantity: quantity.value, part: partKey.value }
    const mark = (cannot: boolean, why: string) =>
      ask(
        markPlaceUnreadable({
          path,
          body: { place: row.place, unreadable: cannot, reason: why, person_id: personId.value },
        }),
      )
    try {
      await undo.inTurn(async () => {
        await mark(unreadable, reason)
        undo.did(async () => void (await mark(row.unreadable !== '', row.unreadable)))
      })
      refusal.value = null
      if (unreadable) await settle(row, 'cannot be read')
      else await load()
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      return false
    }
  }

  return {
    survey,
    quantity,
    partKey,
    at,
    here,
    missing,
    liner,
    taken,
    refusal,
    deviates,
    load,
    go,
    step,
    move,
    take,
    again,
    takeBack,
    sayUnreadable,
  }
}
