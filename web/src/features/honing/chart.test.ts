import { describe, expect, it } from 'vitest'

import type { HoneView } from '@/api/generated'

import { chartOf, FRAME, leftNow } from './chart'
import { minuteText } from './words'

const stated = (value_m: number, expanded_m = 2e-6) => ({ value_m, expanded_m })
const made = (strokes: number | null, before_m: number, after_m: number | null, stage = 'rough') => ({
  round_id: `${stage} ${before_m}`,
  stage,
  strokes,
  before_m,
  after_m,
})
const ahead = (stage: string, strokes: number, before_m: number, after_m: number | null) => ({
  stage,
  strokes,
  before_m,
  after_m,
  fast_m: after_m === null ? null : after_m - 2e-6,
  slow_m: after_m === null ? null : after_m + 2e-6,
})
const view = (more: object = {}): HoneView =>
  ({
    target: { finished: stated(0.1) },
    left: stated(40e-6),
    rate: { per_stroke_m: 1e-6, within_m: 0.1e-6, rounds: 4 },
    turning: null,
    made: [made(20, 0.1 - 80e-6, 0.1 - 60e-6), made(20, 0.1 - 60e-6, 0.1 - 40e-6)],
    ahead: [ahead('rough', 10, 40e-6, 30e-6), ahead('fine', 20, 30e-6, null)],
    ...more,
  }) as unknown as HoneView

describe('the chart of the stock', () => {
  it('lays rounds one after the other, what is left upwards', () => {
    const chart = chartOf(view(), 0, 1e-6)
    expect(chart.rounds.map((one) => one.isMade)).toEqual([true, true, false, false])
    const [first, second, third] = chart.rounds
    expect(first?.from).toMatchObject({ x: FRAME.left })
    expect(second?.from.x).toBeGreaterThan(first?.to?.x ?? 0)
    expect(second?.to?.y).toBeGreaterThan(first?.to?.y ?? 0)
    expect(third?.band?.fast).toBeGreaterThan(third?.band?.slow ?? 0)
    expect(chart.ticks[0]).toEqual({ y: FRAME.foot, metres: 0 })
    expect(chart.top).toBeGreaterThanOrEqual(80e-6)
  })

  it('says nothing of a round whose rate is not learned', () => {
    const last = chartOf(view(), 0, 1e-6).rounds.at(-1)
    expect(last).toMatchObject({ to: null, band: null, left: null })
  })

  it('marks where a turning round stands, and where it stops', () => {
    const chart = chartOf(view({ turning: made(null, 0.1 - 40e-6, null) }), 5, 1e-6)
    const turning = chart.rounds.find((one) => one.isTurning)
    expect(turning?.strokes).toBe(10)
    expect(chart.now?.x).toBeCloseTo(((turning?.from.x ?? 0) + (turning?.to?.x ?? 0)) / 2)
    expect(chart.stop).toBeCloseTo(turning?.to?.x ?? 0)
    expect(chartOf(view(), 5, 1e-6).now).toBeNull()
  })

  it('groups the stages under it', () => {
    expect(chartOf(view(), 0, 1e-6).stages.map((one) => one.stage)).toEqual(['rough', 'fine'])
  })
})

describe('what is left now', () => {
  it('is what was read until a round turns', () => {
    expect(leftNow(view(), 12)).toEqual({ left: 40e-6, within: 2e-6 })
    expect(leftNow(view({ left: null }), 0)).toBeNull()
  })

  it('goes down stroke by stroke, and is known less and less', () => {
    const now = leftNow(view({ turning: made(null, 0, null) }), 10)
    expect(now?.left).toBeCloseTo(30e-6, 12)
    expect(now?.within).toBeCloseTo(Math.hypot(2e-6, 1e-6), 12)
    const unknown = view({
      turning: made(null, 0, null),
      rate: { per_stroke_m: 1e-6, within_m: null, rounds: 1 },
    })
    expect(leftNow(unknown, 10)?.within).toBeCloseTo(Math.hypot(2e-6, 10e-6), 12)
  })
})

describe('minutes', () => {
  it('are told as a clock does', () => {
    expect([0, 29.4, 61, 600, -3].map(minuteText)).toEqual(['0:00', '0:29', '1:01', '10:00', '0:00'])
  })
})
