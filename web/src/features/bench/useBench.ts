/** The bench: one spot to read now, taken from the gauge or typed, then the next one by itself. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, type Ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { HoleView, Quantity } from '@/api/generated'
import { type ClockLens, clockLensOf } from '@/shared/subjects'
import { bareUnit } from '@/shared/format/bareUnit'
import type { JobNow } from '@/shared/state/job'
import { waitingFor } from '@/shared/state/outbox'
import { unit } from '@/shared/state/preferences'
import { type Capture, type CaptureSpot, type MovingSpot, useCapture } from '@/shared/state/useCapture'
import type { Undo } from '@/shared/state/useUndo'

import { missingSpots, nextSpot, type Pass, type Spot, spotKey, stepSpot } from './order'

export interface Bench extends Capture {
  lens: ComputedRef<ClockLens>
  quantity: ComputedRef<Quantity>
  spot: ComputedRef<Spot | null>
  hole: ComputedRef<HoleView | null>
  missing: ComputedRef<Spot[]>
  pass: Ref<Pass | null>
  go: (spot: Spot | null) => Promise<void>
  step: (by: 1 | -1) => void
  startPass: () => void
}

export function useBench(job: JobNow, undo: Undo): Bench {
  const route = useRoute()
  const router = useRouter()
  const lens = computed<ClockLens>(() => clockLensOf(route.params['lens']).name)
  const quantity = computed<Quantity>(() => clockLensOf(lens.value).quantity)
  const passes = useLocalStorage<Record<string, Pass | null>>(`vallo-pass-${job.jobId}`, {})
  const pass = computed({
    get: () => passes.value[lens.value] ?? null,
    set: (now) => (passes.value = { ...passes.value, [lens.value]: now }),
  })

  const capture = useCapture(
    job.jobId,
    undo,
    () => spot.value && hole.value && captureSpot(spot.value, hole.value),
    settled,
  )

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

  let moves = 0
  async function go(to: Spot | null): Promise<void> {
    moves += 1
    capture.refusal.value = null
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

  function captureSpot(at: Spot, of: HoleView): MovingSpot {
    const said = of.unreadable.find((one) => one.hour === at.hour)?.reason ?? ''
    return {
      key: spotKey(at),
      name: `${at.hole} at ${at.hour}h`,
      quantity: quantity.value,
      part: `hole-${at.hole}`,
      place: { hour: at.hour },
      where: { hole: at.hole, hour: at.hour },
      bareUnit: bareUnit(quantity.value, unit.value),
      unreadable: lens.value === 'protrusion' ? said : '',
      opensSet: opensSet(at),
      moves,
    }
  }

  /** What was taken back is to be read again in this pass too. */
  watch(
    () => undo.said.value,
    () => {
      const at = lastTaken
      if (pass.value && at && undo.said.value) {
        pass.value = { done: pass.value.done.filter((key) => key !== at.key) }
        void go({ hole: at.where.hole ?? 0, hour: at.where.hour ?? 0 })
      }
      lastTaken = null
    },
  )
  let lastTaken: CaptureSpot | null = null

  async function settled(at: MovingSpot): Promise<void> {
    lastTaken = at
    if (pass.value) pass.value = { done: [...new Set([...pass.value.done, at.key])] }
    if (moves !== at.moves) return
    if (route.query['at'] !== undefined && spot.value && spotKey(spot.value) !== at.key) return
    const next = nextAfter({ hole: at.where.hole ?? 0, hour: at.where.hour ?? 0 })
    if (next !== null) await go(next)
    else if (pass.value) pass.value = null
  }

  function startPass(): void {
    pass.value = { done: [] }
    void go(nextAfter(null))
  }

  return {
    ...capture,
    lens,
    quantity,
    spot,
    hole,
    missing,
    pass,
    go,
    step,
    startPass,
  }
}
