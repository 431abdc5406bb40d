import { describe, expect, it } from 'vitest'

import type { MatchRowView } from '@/api/generated'

import { scaleOf } from './scale'

const row = (more: object): MatchRowView =>
  ({ least_m: null, greatest_m: null, by_sizes: null, by_feeler: null, ...more }) as unknown as MatchRowView
const by = (value_m: number, expanded_m: number) => ({ stated: { value_m, expanded_m } })

describe('the scale of clearances', () => {
  it('has every limit and every ± of the sheet in sight, with a margin', () => {
    const scale = scaleOf([
      row({ least_m: 100e-6, greatest_m: 150e-6, by_sizes: by(120e-6, 5e-6) }),
      row({ by_feeler: by(180e-6, 20e-6) }),
    ])
    expect(scale.from).toBeCloseTo(88e-6, 9)
    expect(scale.to).toBeCloseTo(212e-6, 9)
    expect(scale.x(scale.from)).toBe(0)
    expect(scale.x(scale.to)).toBe(100)
    expect(scale.x(150e-6)).toBeCloseTo(50)
  })

  it('has some width where all are alike, and where nothing was read', () => {
    const alike = scaleOf([row({ least_m: 100e-6, greatest_m: 100e-6 })])
    expect(alike.to - alike.from).toBeCloseTo(4e-6, 9)
    const none = scaleOf([])
    expect(none.to).toBeGreaterThan(none.from)
  })
})
