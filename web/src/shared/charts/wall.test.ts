import { describe, expect, it } from 'vitest'

import type { SurveyView } from '@/api/generated'

import { acrossOf, rowsOf, scaleOf } from './wall'

const survey = (least: number | null, greatest: number | null, ...values: number[]) =>
  ({
    least_m: least,
    greatest_m: greatest,
    nominal_m: 0.1,
    places: values.map((value_m) => ({ value_m })),
  }) as unknown as SurveyView

describe('a bore as limit tracks', () => {
  it('draws the window of the card with room on both sides', () => {
    const scale = scaleOf(survey(0.1, 0.10002))
    expect(acrossOf(0.1, scale, 220).x).toBeCloseTo(60)
    expect(acrossOf(0.10002, scale, 220).x).toBeCloseTo(160)
    expect(acrossOf(0.2, scale, 220)).toEqual({ x: 220, beyond: 'right' })
    expect(acrossOf(0.05, scale, 220)).toEqual({ x: 0, beyond: 'left' })
  })

  it('draws what was read where the card sets no limit', () => {
    const scale = scaleOf(survey(null, null, 0.1, 0.10004))
    expect(scale.from).toBeLessThan(0.1)
    expect(scale.to).toBeGreaterThan(0.10004)
    expect(scaleOf(survey(null, null)).to).toBeGreaterThan(0.1)
  })

  it('keeps levels apart and in their order', () => {
    const rows = rowsOf([10, 12, 14, 90, 160], 300, 40)
    for (let at = 1; at < rows.length; at++)
      expect((rows[at] ?? 0) - (rows[at - 1] ?? 0)).toBeGreaterThanOrEqual(39.9)
    expect(Math.max(...rows)).toBeLessThanOrEqual(280.1)
    expect(rowsOf([], 300, 40)).toEqual([])
  })
})
