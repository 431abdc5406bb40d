import { describe, expect, it } from 'vitest'

import type { DropView, WindowView } from '@/api/generated'

import {
  FRAME,
  PAIRS,
  pairAt,
  pairsFace,
  pairsLine,
  rightOf,
  span,
  windowChart,
  xLiner,
  yBlock,
} from './chart'
import { callBetween, clockText, largeOf, slipOf } from './dropWords'
import { withKept } from './keptMarks'

const step = (kind: string, due_s: number, done_s: number | null = null) => ({ kind, due_s, done_s })
const drop = (more: object = {}): DropView =>
  ({
    state: 'out of the cold',
    goes_on: true,
    liner: 'P3',
    window: { home_by_s: 60 },
    sheet: [step('bag off', 10), step('over the hole, square', 30), step('enters', 40)],
    next_step: 'bag off',
    out_at: '2026-11-20T10:00:00Z',
    entered_s: null,
    hold: null,
    ...more,
  }) as unknown as DropView

describe('the clock of a drop', () => {
  it('counts seconds up to a hundred, then minutes, then hours', () => {
    expect(['0', '99', '1:40', '10:00', '1:00:05']).toEqual([-3, 99.4, 100, 600, 3605].map(clockText))
  })

  it('says what is left to be home, and turns near the end', () => {
    expect(largeOf(drop(), 5)).toMatchObject({ digits: '55', tone: 'text-ink' })
    expect(largeOf(drop({ next_step: null }), 52)).toMatchObject({ digits: '8', tone: 'text-act' })
    expect(largeOf(drop({ next_step: null }), 61)).toMatchObject({ digits: '0', tone: 'text-out' })
    expect(largeOf(drop({ next_step: null }), 61).words).toContain('back to the cold')
    expect(largeOf(drop({ state: 'in the hole' }), 61).words).toBe('the window has closed')
  })

  it('moves the end by what the next step is late, and by nothing once the liner is in', () => {
    expect(slipOf(drop(), 4)).toBe(0)
    expect(slipOf(drop(), 25)).toBe(15)
    expect(slipOf(drop({ state: 'in the hole' }), 25)).toBe(0)
    expect(largeOf(drop(), 25).digits).toBe('50')
  })

  it('has words for a window that stays open, for none at all, and for what comes after', () => {
    const open = { window: { home_by_s: null } }
    expect(largeOf(drop(open), 12)).toMatchObject({ digits: '12', tone: 'text-in' })
    expect(largeOf(drop({ window: null }), 12).words).toContain('no window: read hole and liner')
    expect(largeOf(drop({ state: 'stuck', goes_on: false }), 80).words).toContain('stuck')
    const held = { state: 'home: hold it down', goes_on: false, hold: { until_s: 400 } }
    expect(largeOf(drop(held), 100)).toMatchObject({ digits: '5:00' })
    expect(largeOf(drop(held), 401).words).toContain('read the block, then let go')
    expect(largeOf(drop({ state: 'let go', goes_on: false }), 500).words).toBe('P3 is let go')
    const before = { state: 'in the cold', goes_on: true }
    expect(largeOf(drop(before), 0).words).toContain('by the plan')
    expect(largeOf(drop({ ...before, ...open }), 0).digits).toBe('∞')
  })

  it('calls each step three seconds ahead, and counts the last five', () => {
    expect(callBetween(drop(), 6, 6.9)).toBe('')
    expect(callBetween(drop(), 6.9, 7.1)).toBe('bag off')
    const late = drop({ sheet: [step('enters', 40, 41)], next_step: null })
    expect(callBetween(late, 54.5, 55)).toBe('5')
    expect(callBetween(late, 58.9, 59.1)).toBe('1')
    expect(callBetween(late, 59.5, 60)).toBe('closed')
    expect(callBetween(late, 60.5, 61)).toBe('')
    expect(callBetween(drop({ ...late, state: 'let go' }), 54.5, 55)).toBe('')
  })

  it('calls no end while a late step moves it', () => {
    expect(callBetween(drop(), 54.5, 55)).toBe('')
  })
})

describe('a drop with what waits for the link', () => {
  const at = (second: number) => new Date(Date.parse('2026-11-20T10:00:00Z') + second * 1000).toISOString()

  it('goes on from the cold to the hole, each step at its own second', () => {
    const start = drop({ state: 'in the cold', out_at: null, next_step: null })
    const out = withKept(start, [{ kind: 'liner out of the cold', at: at(0) }])
    expect([out.state, out.next_step]).toEqual(['out of the cold', 'bag off'])
    const on = withKept(out, [
      { kind: 'bag off', at: at(11) },
      { kind: 'over the hole, square', at: at(28) },
    ])
    expect(on.sheet.map((one) => one.done_s)).toEqual([11, 28, null])
    expect(on.next_step).toBe('enters')
    const entered = withKept(on, [{ kind: 'enters', at: at(39) }])
    expect([entered.state, entered.entered_s, entered.next_step]).toEqual(['in the hole', 39, null])
  })

  it('is home by drop, push or drive, and stands as it was told then', () => {
    for (const kind of ['dropped', 'pushed', 'driven'] as const)
      expect(withKept(drop({ state: 'in the hole' }), [{ kind, at: at(44) }])).toMatchObject({
        state: 'home: hold it down',
        goes_on: false,
        home: kind,
      })
    const tell = (kind: 'stuck' | 'goes on' | 'held down' | 'let go') =>
      withKept(drop(), [{ kind, at: at(50) }]).state
    expect([tell('stuck'), tell('goes on'), tell('held down'), tell('let go')]).toEqual([
      'stuck',
      'in the hole',
      'held down',
      'let go',
    ])
  })

  it('leaves what the server said as it was', () => {
    const before = drop()
    withKept(before, [{ kind: 'bag off', at: at(11) }])
    expect(before.sheet[0]?.done_s).toBeNull()
  })
})

describe('the pictures of a drop', () => {
  const window = (more: object = {}): WindowView =>
    ({
      times_s: [0, 20, 40, 60, 80, 100, 200],
      low_m: [80e-6, 60e-6, 40e-6, 20e-6, 0, -20e-6, -60e-6],
      likely_m: [90e-6, 70e-6, 50e-6, 30e-6, 10e-6, -10e-6, -50e-6],
      high_m: [100e-6, 80e-6, 60e-6, 40e-6, 20e-6, 0, -40e-6],
      enter_s: 20,
      likely_s: 60,
      grabs_s: 80,
      ...more,
    }) as unknown as WindowView

  it('ends a little after the window does, later to the right and clearer higher up', () => {
    const chart = windowChart(window(), 25e-6, 25.4e-6, rightOf(false))
    expect(chart.x(0)).toBe(FRAME.left)
    // 20 s to enter, 1.6 times the 40 s that are left, and two more.
    expect(chart.x(86)).toBeCloseTo(rightOf(false))
    expect(chart.y(80e-6)).toBeLessThan(chart.y(20e-6))
    expect(chart.y(1)).toBe(FRAME.top)
    expect(chart.y(-1)).toBe(FRAME.bottom)
    expect(chart.band.startsWith('M')).toBe(true)
    expect(chart.band.endsWith('Z')).toBe(true)
    expect(chart.likely.split('L')).toHaveLength(5)
    for (const metres of chart.lengths) expect(Math.round(metres / 25.4e-6) * 25.4e-6).toBeCloseTo(metres)
  })

  it('looks no closer at a window that is shut before the liner enters', () => {
    const shut = windowChart(window({ likely_s: 10 }), 25e-6, 25.4e-6, rightOf(true))
    expect(shut.x(200)).toBeCloseTo(rightOf(true))
  })

  it('lays pairs with the cold at the left and the hot above, and reads them back', () => {
    expect(xLiner(-200)).toBe(PAIRS.left)
    expect(yBlock(200)).toBe(PAIRS.top)
    expect(pairAt(xLiner(-78), yBlock(90))).toEqual({ liner_c: -78, block_c: 90 })
    // Nothing is colder than liquid nitrogen here, and no block hotter than the picture.
    expect(pairAt(0, 0)).toEqual({ liner_c: -196, block_c: 200 })
    const pairs = [
      { liner_c: -100, block_c: 20 },
      { liner_c: 20, block_c: 140 },
    ]
    expect(pairsLine(pairs)).toMatch(/^M[\d. ]+L[\d. ]+$/)
    expect(pairsFace(pairs).endsWith(`L${xLiner(-100)} ${PAIRS.top}Z`)).toBe(true)
    expect(pairsFace([])).toBe('')
  })

  it('says a time as a shop does', () => {
    expect([40, 99.6, 600, 7200].map(span)).toEqual(['40 s', '100 s', '10 min', '2.0 h'])
  })
})
