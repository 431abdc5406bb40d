import { describe, expect, it } from 'vitest'

import { GREATEST_RADIUS, LEAST_RADIUS, placeOf, radiusOf } from './track'

const track = { least: 50e-6, greatest: 125e-6 }

describe('limit track', () => {
  it('puts the limits on their circles', () => {
    expect(radiusOf(track.least, track)).toBeCloseTo(LEAST_RADIUS, 9)
    expect(radiusOf(track.greatest, track)).toBeCloseTo(GREATEST_RADIUS, 9)
  })

  it('grows with the value', () => {
    const radii = [40, 60, 80, 100, 120].map((um) => radiusOf(um * 1e-6, track))
    expect([...radii].sort((a, b) => a - b)).toEqual(radii)
  })

  it('stands at the hour: 12 up, 3 to the right, 6 down, 9 to the left', () => {
    const at = (hour: number) => placeOf(hour, 90e-6, track)
    expect(at(12).y).toBeLessThan(0)
    expect(at(3).x).toBeGreaterThan(0)
    expect(at(6).y).toBeGreaterThan(0)
    expect(at(9).x).toBeLessThan(0)
    expect(Math.abs(at(3).y)).toBeLessThan(1e-9)
  })

  it('holds what is far off at the rim and says on which side', () => {
    expect(placeOf(3, 400e-6, track).beyond).toBe('outside')
    expect(placeOf(3, -400e-6, track).beyond).toBe('inside')
    expect(placeOf(3, 80e-6, track).beyond).toBe('')
    expect(placeOf(3, 4e-3, track).radius).toBe(placeOf(3, 400e-6, track).radius)
  })

  it('draws with one limit or none', () => {
    expect(Number.isFinite(radiusOf(60e-6, { least: 50e-6, greatest: null }))).toBe(true)
    expect(radiusOf(125e-6, { least: null, greatest: 125e-6 })).toBeCloseTo(GREATEST_RADIUS, 9)
    expect(radiusOf(7e-5, { least: null, greatest: null })).toBeCloseTo(
      (LEAST_RADIUS + GREATEST_RADIUS) / 2,
      9,
    )
  })
})
