/** The calendar of the shop as the screen holds it: as it stands, and as it would stand with a change that is tried. */
import { computed, type ComputedRef, onBeforeUnmount, type Ref, ref, shallowRef, type ShallowRef } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  type CalendarView,
  moveWait,
  type Operation,
  pin,
  promise,
  readCalendar,
  tryChange,
  type CalendarTriedView,
} from '@/api/generated'
import { onChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

export interface Change {
  job: string
  wait?: string
  expected?: string
  operation?: Operation
  startsAt?: string
  person?: string
}

export interface CalendarNow {
  view: ShallowRef<CalendarView | null>
  shown: ComputedRef<CalendarView | null>
  tried: ShallowRef<CalendarTriedView | null>
  change: Ref<Change | null>
  refusal: Ref<Refusal | null>
  missing: Ref<Refusal | null>
  busy: Ref<boolean>
  tryOut: (change: Change) => Promise<void>
  drop: () => void
  accept: () => Promise<boolean>
  takePinAway: (job: string, operation: Operation) => Promise<boolean>
  promiseFor: (
    job: string,
    day: string | null,
    told: string,
    last: string | null,
    cost: string,
  ) => Promise<boolean>
}

export function useCalendar(): CalendarNow {
  const { data: view, refusal: missing, load } = useLoaded(() => ask(readCalendar()))
  const tried = shallowRef<CalendarTriedView | null>(null)
  const change = ref<Change | null>(null)
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  onBeforeUnmount(onChange(() => void load()))

  async function send(work: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    refusal.value = null
    try {
      await work()
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      return false
    } finally {
      busy.value = false
    }
  }

  async function tryOut(wanted: Change): Promise<void> {
    await send(async () => {
      tried.value = await ask(
        tryChange({
          body: {
            job_id: wanted.job,
            wait_id: wanted.wait ?? null,
            expected: wanted.expected || null,
            operation: wanted.operation ?? null,
            starts_at: wanted.startsAt || null,
            person: wanted.person ?? '',
          },
        }),
      )
      change.value = wanted
    })
  }

  function drop(): void {
    tried.value = null
    change.value = null
    refusal.value = null
  }

  const settle = async (work: () => Promise<unknown>) => {
    const done = await send(work)
    if (done) {
      drop()
      await load()
    }
    return done
  }

  function accept(): Promise<boolean> {
    const wanted = change.value
    if (!wanted) return Promise.resolve(false)
    const path = { job_id: wanted.job }
    const person_id = personId.value
    return settle(() =>
      wanted.wait
        ? ask(
            moveWait({
              path: { ...path, wait_id: wanted.wait },
              body: { expected: wanted.expected || null, person_id },
            }),
          )
        : ask(
            pin({
              path,
              body: {
                operation: wanted.operation as Operation,
                starts_at: wanted.startsAt || null,
                person: wanted.person ?? '',
                person_id,
              },
            }),
          ),
    )
  }

  return {
    view,
    shown: computed(() => tried.value?.calendar ?? view.value),
    tried,
    change,
    refusal,
    missing,
    busy,
    tryOut,
    drop,
    accept,
    takePinAway: (job, operation) =>
      settle(() => ask(pin({ path: { job_id: job }, body: { operation, person_id: personId.value } }))),
    promiseFor: (job, day, told, last, cost) =>
      settle(() =>
        ask(
          promise({
            path: { job_id: job },
            body: { promised: day, told, last_day: last, day_cost: cost || null, person_id: personId.value },
          }),
        ),
      ),
  }
}
