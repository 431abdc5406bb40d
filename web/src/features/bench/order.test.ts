import { describe, expect, it } from 'vitest'

import type { BlockView } from '@/api/generated'

import { allSpots, missingInWords, missingSpots, nextSpot, stepSpot } from './order'

interface HoleLike {
  number: number
  read?: number[]
  unreadable?: number[]
  liner?: boolean
}

const block = (holes: HoleLike[]) =>
  ({
    card: { required_hours: [12, 3, 6, 9] },
    holes: holes.map((hole) => ({
      number: hole.number,
      liner: hole.liner === false ? null : { mark: 'L' },
      marks: (hole.read ?? []).map((hour) => ({ hour })),
      unreadable: (hole.unreadable ?? []).map((hour) => ({ hour, reason: 'stud' })),
      parts: { ledge_depths: [] },
    })),
  }) as unknown as BlockView

describe('order of measuring', () => {
  it('goes round each hole as the card says, hole after hole', () => {
    const spots = allSpots(block([{ number: 1 }, { number: 2 }]), 'protrusion')
    expect(spots.map((spot) => `${spot.hole}/${spot.hour}`).join(' ')).toBe(
      '1/12 1/3 1/6 1/9 2/12 2/3 2/6 2/9',
    )
  })

  it('leaves out holes without a liner, and positions that cannot be read', () => {
    const now = block([
      { number: 1, liner: false },
      { number: 2, unreadable: [6], read: [12] },
    ])
    expect(missingInWords(missingSpots(now, 'protrusion', null))).toBe('2 at 3h, 9h')
    expect(missingSpots(now, 'counterbore', null)).toHaveLength(8)
  })

  it('comes round again to what was left out, and ends', () => {
    const now = block([
      { number: 1, read: [3, 6, 9] },
      { number: 2, read: [12, 3, 6, 9] },
    ])
    expect(nextSpot(now, 'protrusion', { hole: 2, hour: 9 }, null)).toEqual({ hole: 1, hour: 12 })
    expect(nextSpot(block([{ number: 1, read: [12, 3, 6, 9] }]), 'protrusion', null, null)).toBeNull()
  })

  it('measures everything anew in a pass of its own', () => {
    const now = block([{ number: 1, read: [12, 3, 6, 9] }])
    expect(missingSpots(now, 'protrusion', { done: ['1·12'] }).map((spot) => spot.hour)).toEqual([3, 6, 9])
  })

  it('steps both ways and comes back', () => {
    const now = block([{ number: 1 }, { number: 2 }])
    const spot = { hole: 1, hour: 9 }
    expect(stepSpot(now, 'protrusion', spot, 1)).toEqual({ hole: 2, hour: 12 })
    expect(stepSpot(now, 'protrusion', stepSpot(now, 'protrusion', spot, 1), -1)).toEqual(spot)
    expect(stepSpot(block([]), 'protrusion', null, 1)).toBeNull()
  })
})
