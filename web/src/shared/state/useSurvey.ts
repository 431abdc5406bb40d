/** One survey at the bench: a place to read now, taken from the gauge or typed, then the next one by itself. */
import { computed, type ComputedRef, onBeforeUnmount, ref, type Ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { type PlaceReadView, type Quantity, readSurvey, type SurveyView } from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import type { JobNow } from '@/shared/state/job'
import { linkFailed, onChange } from '@/shared/state/link'
import { waitingFor } from '@/shared/state/outbox'
import { unit } from '@/shared/state/preferences'
import { type Capture, type MovingSpot, useCapture } from '@/shared/state/useCapture'
import { useLoaded } from '@/shared/state/useLoaded'
import type { Undo } from '@/shared/state/useUndo'

import { missingPlaces, movePlace, nextPlace, placeKey, stepPlace, type Way } from '@/shared/state/places'

export interface SurveyBench extends Capture {
  survey: Ref<SurveyView | null>
  quantity: ComputedRef<Quantity>
  partKey: ComputedRef<string>
  at: ComputedRef<string | null>
  here: ComputedRef<PlaceReadView | null>
  missing: ComputedRef<PlaceReadView[]>
  liner: Ref<string>
  /** Readings are deviations from a set size, in small units. */
  deviates: ComputedRef<boolean>
  load: () => Promise<void>
  go: (key: string | null) => Promise<void>
  step: (by: 1 | -1) => void
  move: (way: Way) => void
}

/** ``of`` names what is read where the address does not; which place is at hand is then not kept in the address. */
export function useSurvey(
  job: JobNow,
  undo: Undo,
  of: (() => { quantity: Quantity; part: string }) | null = null,
): SurveyBench {
  const route = useRoute()
  const router = useRouter()
  const chosen = ref<string | null>(null)
  const quantity = computed(() => of?.().quantity ?? (String(route.params['quantity']) as Quantity))
  const partKey = computed(() => of?.().part ?? String(route.params['part']))
  const addressed = computed(() => (of ? chosen.value : (route.query['at'] ?? null)))
  const liner = ref('')
  const capture = useCapture(job.jobId, undo, () => here.value && captureSpot(here.value), settled)
  const ofPart = () => ({ job_id: job.jobId, quantity: quantity.value, part: partKey.value })
  const {
    data: survey,
    refusal: notLoaded,
    load,
  } = useLoaded<SurveyView>(
    () => ask(readSurvey({ path: ofPart() })),
    () => `${quantity.value} ${partKey.value}`,
  )
  watch(notLoaded, (why) => {
    if (why?.code === 'unavailable') linkFailed()
    else if (why) capture.refusal.value = why
  })
  watch([quantity, partKey], () => {
    capture.refusal.value = null
    capture.taken.forget()
    chosen.value = null
  })
  const stop = onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined))
  onBeforeUnmount(stop)

  const waiting = computed(() =>
    waitingFor(job.jobId)
      .filter((one) => one.body.quantity === quantity.value && one.body.part === partKey.value)
      .map((one) => placeKey(one.body)),
  )
  const at = computed(() => {
    if (typeof addressed.value === 'string') return addressed.value
    if (!survey.value) return null
    const first = survey.value.places[0]
    return nextPlace(survey.value, null, waiting.value) ?? (first ? placeKey(first.place) : null)
  })
  const here = computed(() => survey.value?.places.find((row) => placeKey(row.place) === at.value) ?? null)
  const missing = computed(() => (survey.value ? missingPlaces(survey.value, waiting.value) : []))
  const deviates = computed(() => (survey.value?.setup?.zeroed_on ?? 'datum') !== 'datum')

  let moves = 0
  async function go(key: string | null): Promise<void> {
    moves += 1
    capture.refusal.value = null
    if (of) chosen.value = key
    else await router.replace({ query: key === null ? {} : { at: key } })
  }
  const step = (by: 1 | -1) => survey.value && void go(stepPlace(survey.value, at.value, by))
  const move = (way: Way) => survey.value && void go(movePlace(survey.value, at.value, way))

  function captureSpot(row: PlaceReadView): MovingSpot {
    const now = survey.value
    return {
      key: placeKey(row.place),
      name: row.name,
      quantity: quantity.value,
      part: partKey.value,
      place: row.place,
      where: { part: partKey.value, liner_mark: liner.value, ...row.place },
      bareUnit: bareFor(now !== null && now.is_size && !deviates.value, unit.value),
      unreadable: row.unreadable,
      opensSet: false,
      moves,
    }
  }

  async function settled(at: MovingSpot): Promise<void> {
    if (moves !== at.moves) return
    if (typeof addressed.value === 'string' && addressed.value !== at.key) return
    await go((survey.value && nextPlace(survey.value, at.key, waiting.value)) ?? at.key)
  }

  return {
    ...capture,
    survey,
    quantity,
    partKey,
    at,
    here,
    missing,
    liner,
    deviates,
    load,
    go,
    step,
    move,
  }
}
