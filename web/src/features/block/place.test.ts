import { describe, expect, it } from 'vitest'

import type { BlockView, HoleView } from '@/api/generated'

import { nextHour, placeAfter } from './place'

const hole = (number: number, hours: number[], liner: object | null = {}) =>
  ({
    number,
    liner,
    marks: hours.map((hour) => ({ hour })),
    parts: { ledge_depths: [] },
  }) as unknown as HoleView
const REQUIRED = [12, 3, 6, 9]

describe('where the gauge goes next', () => {
  it('goes round from where it stands and comes back to what was left out', () => {
    expect(nextHour(hole(1, [12]), 'protrusion', REQUIRED, 12)).toBe(3)
    expect(nextHour(hole(1, [12, 6, 9]), 'protrusion', REQUIRED, 9)).toBe(3)
  })

  it('counts the reading just taken, though the block does not show it yet', () => {
    expect(nextHour(hole(1, []), 'protrusion', REQUIRED, 12)).toBe(3)
    expect(nextHour(hole(1, [12, 3, 6]), 'protrusion', REQUIRED, 9)).toBeNull()
  })

  it('keeps lenses apart', () => {
    expect(nextHour(hole(1, REQUIRED), 'counterbore', REQUIRED, null)).toBe(12)
  })

  const block = (...holes: HoleView[]) =>
    ({ holes, card: { required_hours: REQUIRED } }) as unknown as BlockView

  it('goes on to the next hole with something missing, and past one without a liner', () => {
    const holes = block(hole(1, [12]), hole(2, [12, 3, 6]), hole(3, [], null), hole(4, [12]))
    expect(placeAfter(holes, 'protrusion', 2, 9)).toEqual({ hole: 4, hour: 3 })
    expect(placeAfter(holes, 'counterbore', 2, 9)).toEqual({ hole: 2, hour: 12 })
    expect(placeAfter(block(hole(1, [12]), hole(2, REQUIRED)), 'protrusion', 2, 9)).toEqual({
      hole: 1,
      hour: 3,
    })
  })

  it('stays in a hole that is read all round where nothing is missing anywhere', () => {
    expect(placeAfter(block(hole(1, REQUIRED)), 'protrusion', 1, 9)).toEqual({ hole: 1, hour: 9 })
  })
})
