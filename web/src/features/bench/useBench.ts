/** The bench: one spot to read now, taken from the gauge or typed, then the next one by itself. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, ref, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import { type HoleView, markUnreadable, type Quantity } from '@/api/generated'
import type { Lens } from '@/shared/charts/rings'
import { bareUnit } from '@/shared/format/bareUnit'
import type { JobNow } from '@/shared/state/job'
import { linkUp } from '@/shared/state/link'
import { waitingFor } from '@/shared/state/outbox'
import { personId, unit } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { standingAt } from '@/shared/state/standing'
import { useSender } from '@/shared/state/useSender'
import { type Taken, useTaken } from '@/shared/state/useTaken'
import type { Undo } from '@/shared/state/useUndo'

import { missingSpots, nextSpot, type Pass, type Spot, spotKey, stepSpot } from './order'

type ReadBefore = '' | 'repeat' | 'correct' | 'new pass'
interface TakeAs {
  text: string
  confirmed?: boolean
  readBefore?: ReadBefore
}

export interface Bench {
  lens: ComputedRef<Lens>
  quantity: ComputedRef<Quantity>
  spot: ComputedRef<Spot | null>
  hole: ComputedRef<HoleView | null>
  missing: ComputedRef<Spot[]>
  pass: Ref<Pass | null>
  taken: Taken
  refusal: Ref<Refusal | null>
  go: (spot: Spot | null) => Promise<void>
  step: (by: 1 | -1) => void
  take: (as: TakeAs) => Promise<boolean>
  again: (answer: Suggestion | ReadBefore) => Promise<boolean>
  takeBack: () => Promise<void>
  sayUnreadable: (unreadable: boolean, reason: string) => Promise<boolean>
  startPass: () => void
}

export function useBench(job: JobNow, undo: Undo): Bench {
  const route = useRoute()
  const router = useRouter()
  const lens = computed<Lens>(() => (route.params['lens'] === 'counterbore' ? 'counterbore' : 'protrusion'))
  const quantity = computed<Quantity>(() =>
    lens.value === 'counterbore' ? 'counterbore depth' : 'protrusion',
  )
  const passes = useLocalStorage<Record<string, Pass | null>>(`vallo-pass-${job.jobId}`, {})
  const pass = computed({
    get: () => passes.value[lens.value] ?? null,
    set: (now) => (passes.value = { ...passes.value, [lens.value]: now }),
  })
  const taken = useTaken(undo)
  const refusal = ref<Refusal | null>(null)
  let asked: TakeAs | null = null
  const sender = useSender(job.jobId)
  let busy = false

  const waitingSpots = computed(() =>
    waitingFor(job.jobId)
      .filter((one) => one.body.quantity === quantity.value && one.line === '')
      .map((one) => spotKey({ hole: one.body.hole ?? 0, hour: one.body.hour ?? 0 })),
  )
  function nextAfter(at: Spot | null): Spot | null {
    if (!job.block.value) return null
    return nextSpot(job.block.value, lens.value, at, pass.value, waitingSpots.value)
  }

  const spot = computed<Spot | null>(() => {
    const hole = Number(route.params['hole'])
    const hour = Number(route.query['at'])
    if (hole && hour) return { hole, hour }
    return nextAfter(null) ?? firstOf(hole)
  })
  /** Where nothing is missing the hole that the address names is shown with its readings. */
  function firstOf(number: number): Spot | null {
    const block = job.block.value
    const named = block?.holes.find((one) => one.number === number && one.liner)
    return block && named ? { hole: number, hour: block.card.required_hours[0] ?? 12 } : null
  }
  const hole = computed(() => job.block.value?.holes.find((one) => one.number === spot.value?.hole) ?? null)
  const missing = computed(() =>
    job.block.value ? missingSpots(job.block.value, lens.value, pass.value, waitingSpots.value) : [],
  )

  async function go(to: Spot | null): Promise<void> {
    refusal.value = null
    await router.replace({
      name: 'bench',
      params: { job: job.jobId, lens: lens.value, hole: to === null ? '' : String(to.hole) },
      query: to === null ? {} : { at: String(to.hour) },
    })
  }

  function step(by: 1 | -1): void {
    if (job.block.value) void go(stepSpot(job.block.value, lens.value, spot.value, by))
  }

  /** The first reading of a hole in a pass of its own opens a new set; positions done before do not count. */
  function opensSet(at: Spot): boolean {
    const done = pass.value?.done
    return done !== undefined && !done.some((key) => key.startsWith(`${at.hole}·`))
  }

  async function take(as: TakeAs): Promise<boolean> {
    const at = spot.value
    if (at === null || busy) return false
    busy = true
    refusal.value = null
    taken.forget()
    asked = as
    const readBefore = as.readBefore === 'repeat' || as.readBefore === 'correct' ? as.readBefore : ''
    const before = standingAt(job.block.value, quantity.value, at.hole, at.hour)
    try {
      const sent = await undo.inTurn(async () => {
        const now = await sender.send(JSON.stringify([spotKey(at), as]), {
          quantity: quantity.value,
          hole: at.hole,
          hour: at.hour,
          text: as.text,
          bare_unit: bareUnit(quantity.value, unit.value),
          confirmed: as.confirmed ?? false,
          read_before: readBefore,
          new_pass: as.readBefore === 'new pass' || opensSet(at),
          person_id: personId.value,
        })
        if (now.readingId) undo.took(now.readingId, readBefore === 'correct' ? before : [])
        return now
      })
      await settle(at, sent.words, sent.readingId)
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      tell(refusal.value.message, false)
      return false
    } finally {
      busy = false
    }
  }

  async function settle(at: Spot, words: string, readingId = ''): Promise<void> {
    if (pass.value) pass.value = { done: [...new Set([...pass.value.done, spotKey(at)])] }
    taken.say(`${at.hole} at ${at.hour}h`, words, readingId)
    if (linkUp.value) await job.reload()
    const next = nextAfter(at)
    // The next pedal counts once the bench stands at the next position.
    if (next !== null) await go(next)
    else if (pass.value) pass.value = null
  }

  async function takeBack(): Promise<void> {
    refusal.value = await taken.takeBack()
  }

  function again(answer: Suggestion | ReadBefore): Promise<boolean> {
    if (asked === null) return Promise.resolve(false)
    if (typeof answer === 'string') return take({ ...asked, readBefore: answer })
    return take({ ...asked, text: answer.text || asked.text, confirmed: answer.confirm })
  }

  async function sayUnreadable(unreadable: boolean, reason: string): Promise<boolean> {
    const at = spot.value
    if (at === null || hole.value === null) return false
    const path = { hole_id: hole.value.hole_id }
    const before = hole.value.unreadable.find((one) => one.hour === at.hour)?.reason ?? ''
    const mark = (cannot: boolean, why: string) =>
      ask(
        markUnreadable({
          path,
          body: { hour: at.hour, unreadable: cannot, reason: why, person_id: personId.value },
        }),
      )
    try {
      await undo.inTurn(async () => {
        await mark(unreadable, reason)
        undo.did(async () => void (await mark(before !== '', before)))
      })
      refusal.value = null
      await (unreadable ? settle(at, 'cannot be read') : job.reload())
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      return false
    }
  }

  function startPass(): void {
    pass.value = { done: [] }
    void go(nextAfter(null))
  }

  return {
    lens,
    quantity,
    spot,
    hole,
    missing,
    pass,
    taken,
    refusal,
    go,
    step,
    take,
    again,
    takeBack,
    sayUnreadable,
    startPass,
  }
}
