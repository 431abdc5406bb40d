import { describe, expect, it } from 'vitest'

import { FIRST, heightOn, movedTo, outlineOf } from './ladder'

describe('the ladder drawn', () => {
  it('gives the first step the most room and the others even rungs', () => {
    const steps = [0.5e-3, 1e-3, 1.5e-3]
    expect(heightOn(steps, 0)).toBe(0)
    expect(heightOn(steps, 0.25e-3)).toBeCloseTo(FIRST / 2)
    expect(heightOn(steps, 0.5e-3)).toBeCloseTo(FIRST)
    expect(heightOn(steps, 1e-3)).toBeCloseTo(FIRST + (1 - FIRST) / 3)
    expect(heightOn(steps, 1.5e-3)).toBeCloseTo(FIRST + (2 * (1 - FIRST)) / 3)
    expect(heightOn(steps, 9)).toBe(1)
    expect(heightOn([], 0.5e-3)).toBeCloseTo(0.5)
  })

  it('never lets a larger size stand lower', () => {
    const steps = [0.4e-3, 1e-3, 1.1e-3]
    const heights = Array.from({ length: 60 }, (_, at) => heightOn(steps, at * 0.03e-3))
    expect(heights.every((one, at) => at === 0 || one >= (heights[at - 1] ?? 0))).toBe(true)
  })

  it('draws the front to the left, clockwise seen from above', () => {
    const [front, top] = outlineOf(
      [
        { angle: 0, wear: 0 },
        { angle: 90, wear: 1e-4 },
      ],
      40,
      1e5,
    ).split(' ')
    expect(front).toBe('-40.00,0.00')
    expect(top?.replace('-0.00,', '0.00,')).toBe('0.00,-50.00')
    const moved = movedTo(1e-4, 270, 1e5)
    expect(moved.x).toBeCloseTo(0)
    expect(moved.y).toBeCloseTo(10)
  })
})
