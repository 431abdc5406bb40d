import { describe, expect, it } from 'vitest'

import type { HoleView } from '@/api/generated'

import { meanDepth, ringOf } from './rings'

const hole = (changed: object = {}) =>
  ({
    number: 5,
    least_m: 50e-6,
    greatest_m: 125e-6,
    marks: [{ hour: 12, mean_m: 90e-6, state: 'in' }],
    expected_m: null,
    parts: {
      predicted_m: 88e-6,
      least_depth_m: 8.77e-3,
      greatest_depth_m: 8.85e-3,
      ledge_depths: [
        { hour: 12, depth_m: 8.81e-3 },
        { hour: 6, depth_m: 8.83e-3 },
      ],
    },
    ...changed,
  }) as unknown as HoleView

describe('rings of a lens', () => {
  it('shows protrusion against its limits, or depths against theirs', () => {
    expect(ringOf(hole(), 'protrusion', null)).toMatchObject({ least: 50e-6, marks: [{ value: 90e-6 }] })
    expect(ringOf(hole(), 'counterbore', null)).toMatchObject({
      least: 8.77e-3,
      marks: [{ value: 8.81e-3 }, {}],
    })
  })

  it('shows what to expect only while nothing is read', () => {
    expect(ringOf(hole(), 'protrusion', null).expected).toBeNull()
    expect(ringOf(hole({ marks: [] }), 'protrusion', null).expected).toBe(88e-6)
  })

  it('adds what is being typed to its own hole alone', () => {
    const preview = { hole: 5, hour: 3, value: 70e-6 }
    expect(ringOf(hole(), 'protrusion', preview).marks.at(-1)).toMatchObject({ hour: 3, preview: true })
    expect(ringOf(hole({ number: 4 }), 'protrusion', preview).marks).toHaveLength(1)
  })

  it('means the depths read', () => {
    expect(meanDepth(hole())).toBeCloseTo(8.82e-3, 9)
    expect(meanDepth(hole({ parts: { ledge_depths: [] } }))).toBeNull()
  })
})
