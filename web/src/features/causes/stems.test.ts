import { describe, expect, it } from 'vitest'

import type { CausesView, ExplainedView, HoleOffView } from '@/api/generated'

import { endsOf, stemsOf, ticksOf } from './stems'
import { effectText, headline, holesText, hourText, isScatter, share } from './words'

const stated = (value_m: number, expanded_m = 5e-6) => ({ value_m, expanded_m })
const hole = (number: number, offs: number[], more: object = {}): HoleOffView =>
  ({
    hole: number,
    adds_up: false,
    middle: stated(offs.reduce((sum, one) => sum + one, 0) / Math.max(1, offs.length)),
    spots: offs.map((one) => ({ off: stated(one) })),
    ...more,
  }) as unknown as HoleOffView

describe('stems of a block', () => {
  it('stand hole after hole, in each about its middle', () => {
    const [first, second] = stemsOf([hole(1, [1e-6, 2e-6, 3e-6]), hole(2, [])], 200)
    expect(first?.middle).toBe(50)
    expect(first?.stems.map((one) => one.x)).toEqual([36, 50, 64])
    expect(first?.stems.map((one) => one.value_m)).toEqual([1e-6, 2e-6, 3e-6])
    // A hole of which the middle alone is known has one stem.
    expect(second?.stems.map((one) => one.x)).toEqual([150])
    expect(stemsOf([hole(1, [], { middle: null })], 100)[0]?.stems).toEqual([])
  })

  it('keep within their hole however many there are', () => {
    const [only] = stemsOf(
      [
        hole(
          1,
          Array.from({ length: 40 }, () => 0),
        ),
      ],
      100,
    )
    for (const stem of only?.stems ?? []) {
      expect(stem.x).toBeGreaterThan(10)
      expect(stem.x).toBeLessThan(90)
    }
  })

  it('have room for their ±, and nought in sight', () => {
    expect(endsOf(stemsOf([hole(1, [40e-6])], 100))).toEqual({ low: -12e-6, high: 45e-6 })
    expect(endsOf([])).toEqual({ low: -12e-6, high: 12e-6 })
  })

  it('are read on a scale of ones, twos and fives', () => {
    const thou = 25.4e-6
    expect(ticksOf(-thou, 3 * thou, thou).map((one) => Math.round(one / thou))).toEqual([-1, 0, 1, 2, 3])
    const fine = ticksOf(0, 1e-6, 1e-6)
    expect((fine[1] ?? 0) - (fine[0] ?? 0)).toBeCloseTo(0.5e-6)
    expect(ticksOf(0, 36e-6, 1e-6).map((one) => Math.round(one * 1e6))).toEqual([0, 10, 20, 30])
  })
})

const explained = (more: object): ExplainedView =>
  ({
    causes: ['a chip under the flange'],
    effects_m: [25.4e-6],
    high_sides_deg: [null],
    where: [[5]],
    words: [''],
    ...more,
  }) as unknown as ExplainedView
const view = (more: object): CausesView =>
  ({ matter: 'heights', holes: [], explained: [explained({})], ...more }) as unknown as CausesView
const small = (metres: number) => `${(metres / 25.4e-6).toFixed(1)} thou`

describe('causes in words', () => {
  it('name one hole or several', () => {
    expect([holesText([]), holesText([5]), holesText([1, 2])]).toEqual(['', 'hole 5', 'holes 1, 2'])
  })

  it('say in a headline which holes stand where their parts do not put them', () => {
    expect(headline(view({ explained: [] }), small)).toContain('Everything adds up')
    expect(headline(view({ explained: [], matter: 'bores' }), small)).toContain('Every bore is as round')
    expect(headline(view({}), small)).toContain('all together are off')
    expect(headline(view({ holes: [hole(5, [-50.8e-6])] }), small)).toBe(
      'Hole 5 stands 2.0 thou lower than its parts say',
    )
    expect(headline(view({ holes: [hole(1, [25.4e-6]), hole(2, [76.2e-6])] }), small)).toBe(
      'Holes 1, 2 stand 2.0 thou higher than their parts say',
    )
    expect(headline(view({ holes: [hole(3, [1e-6])], matter: 'bores' }), small)).toBe(
      'Hole 3 is not round and straight',
    )
  })

  it('say where and by how much each acts, with its high side for heights alone', () => {
    const tilted = explained({ high_sides_deg: [90] })
    expect(effectText(tilted, small, false)).toBe('1.0 thou, high at 12 h in hole 5')
    expect(effectText(tilted, small, true)).toBe('1.0 thou in hole 5')
    expect(effectText(explained({ words: ['at the seat'] }), small, false)).toBe(
      '1.0 thou in hole 5, at the seat',
    )
    const scatter = explained({ causes: ['nothing but scatter'] })
    expect(isScatter(scatter)).toBe(true)
    expect(effectText(scatter, small, false)).toBe('')
  })

  it('count the clock from 9 h at the front', () => {
    expect([0, 90, 180, 270, 359].map(hourText)).toEqual(['9 h', '12 h', '3 h', '6 h', '9 h'])
  })

  it('give no weight as nothing that is not', () => {
    expect([0.00001, 0.001, 0.126].map(share)).toEqual(['0', '<0.01', '0.13'])
  })
})
