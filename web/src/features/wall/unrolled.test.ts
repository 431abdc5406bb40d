import { angleOfHour, clockText, hourOfAngle } from '@/shared/format/clock'
import { describe, expect, it } from 'vitest'

import { bandsOf, evenStep, type Frame, spotOf, xOf, yOf } from './unrolled'

const frame: Frame = { left: 100, top: 50, width: 720, height: 400, from: 0, to: 0.2 }

describe('a wall unrolled', () => {
  it('runs from 9 h at the front clockwise, and depth downwards', () => {
    expect(xOf(frame, angleOfHour(9))).toBe(100)
    expect(xOf(frame, angleOfHour(12))).toBe(280)
    expect(xOf(frame, angleOfHour(6))).toBe(640)
    expect(yOf(frame, 0.1)).toBe(250)
    expect(hourOfAngle(270)).toBe(6)
    expect(hourOfAngle(90)).toBe(12)
  })

  it('finds the spot that is pointed to, held at the edges', () => {
    const spot = spotOf(frame, 640, 250)
    expect(spot.hour).toBeCloseTo(6)
    expect(spot.depth).toBeCloseTo(0.1)
    expect(spotOf(frame, -20, 900)).toEqual({ hour: 9, depth: 0.2 })
  })

  it('says clock positions as people do', () => {
    expect(clockText(5.67)).toBe('5:40')
    expect(clockText(12)).toBe('12:00')
    expect(clockText(0.5)).toBe('12:30')
    expect(clockText(11.999)).toBe('12:00')
  })

  it('steps in ones, twos and fives', () => {
    expect([0.9, 3, 7, 13, 40].map(evenStep)).toEqual([0.1, 0.5, 1, 2, 5])
    expect(evenStep(0)).toBe(1)
  })

  it('draws bands on both sides of nought, none where nothing was read', () => {
    const angles = Array.from({ length: 72 }, (_, at) => at * 5)
    const wave = angles.map((angle) => 3.5e-6 * Math.cos((angle * Math.PI) / 90))
    const field = {
      depths_m: [0.02, 0.05, 0.1],
      angles_deg: angles,
      values_m: [wave, wave, wave],
      expanded_m: null,
    }
    const bands = bandsOf(field, 0, 1e-6, frame, 1)
    expect(bands.map((one) => one.value)).toEqual([1, 2, 3, -1, -2, -3])
    expect(bands.every((one) => one.d.startsWith('M'))).toBe(true)
    const blank = {
      ...field,
      values_m: [wave, wave.map(() => null), wave].map((row) => row as (number | null)[]),
    }
    const holed = bandsOf(blank, 0, 1e-6, frame, 1)
    expect(holed[0]?.d).not.toBe(bands[0]?.d)
    expect(
      bandsOf({ ...field, values_m: field.values_m.map((row) => row.map(() => null)) }, 0, 1e-6, frame, 1),
    ).toEqual([])
  })
})
