import { describe, expect, it } from 'vitest'

import { clockText, depthAt, onDial, stopsOf } from './dial'

describe('the dial', () => {
  it('has 12 above and 3 at the right', () => {
    expect(onDial(12, 100)).toEqual({ x: expect.closeTo(150) as number, y: expect.closeTo(50) as number })
    expect(onDial(3, 100)).toEqual({ x: expect.closeTo(250) as number, y: expect.closeTo(150) as number })
  })

  it('shows the newest pass at each hour', () => {
    const stops = stopsOf(
      [
        { number: 1, stop_hour: 12 },
        { number: 2, stop_hour: 6 },
        { number: 3, stop_hour: 12 },
      ],
      100,
    )
    expect(stops.map((one) => [one.hour, one.number])).toEqual([
      [12, 3],
      [6, 2],
    ])
  })
})

describe('the ledge between the positions read', () => {
  const ledge = [
    { hour: 12, depth_m: 8.8e-3 },
    { hour: 3, depth_m: 8.9e-3 },
    { hour: 6, depth_m: 9e-3 },
    { hour: 9, depth_m: 8.9e-3 },
  ]

  it('is what was read there, and straight between', () => {
    expect(depthAt(ledge, 3)).toBeCloseTo(8.9e-3, 9)
    expect(depthAt(ledge, 1.5)).toBeCloseTo(8.85e-3, 9)
    expect(depthAt(ledge, 10.5)).toBeCloseTo(8.85e-3, 9)
    expect(depthAt(ledge, 12)).toBeCloseTo(8.8e-3, 9)
  })

  it('is nought where nothing was read, and flat from one reading', () => {
    expect(depthAt([], 4)).toBe(0)
    expect(depthAt([{ hour: 6, depth_m: 9e-3 }], 1)).toBeCloseTo(9e-3, 9)
  })
})

it('tells minutes and seconds', () => {
  expect([clockText(41.9), clockText(62), clockText(600)]).toEqual(['0:41', '1:02', '10:00'])
})
