import { describe, expect, it } from 'vitest'

import type { FitLevelView, FitView } from '@/api/generated'

import { bandOf, depthOf, downDepth, forceText, scaleOf, stressText, yAt } from './fit'

const level = (depth_m: number): FitLevelView => ({ name: `${depth_m}`, depth_m }) as FitLevelView
const fit = (length_m: number | null): FitView =>
  ({ length_m, levels: [level(0.015), level(0.22)] }) as unknown as FitView

describe('the drawing of a fit', () => {
  it('goes down to the liner’s foot, or a little below the last level', () => {
    expect(depthOf(fit(0.24))).toBe(0.24)
    expect(depthOf(fit(null))).toBeCloseTo(0.23)
    expect(depthOf(fit(0.1))).toBeCloseTo(0.23)
  })

  it('runs on as it is beyond the outer levels', () => {
    const points = downDepth([level(0.1), level(0.2)], 0.3, (one) => one.depth_m * 1000)
    expect(points.map(([x]) => x)).toEqual([100, 100, 200, 200])
    expect(points[0]?.[1]).toBe(yAt(0, 0.3))
    expect(points.at(-1)?.[1]).toBe(yAt(0.3, 0.3))
    expect(downDepth([], 0.3, () => 0)).toEqual([])
  })

  it('has even ticks in the unit shown, and room on both sides', () => {
    const scale = scaleOf([0, 40e-6], 100, 300, 'µm')
    expect(scale.x(0)).toBeGreaterThan(100)
    expect(scale.x(40e-6)).toBeLessThan(300)
    expect(scale.ticks.map((one) => one.text)).toContain('+20')
    const thou = scaleOf([-25.4e-6, 25.4e-6], 0, 100, 'thou', 4)
    expect(thou.ticks.map((one) => one.text)).toContain('−1.0')
    expect(thou.x(0)).toBeCloseTo(50)
  })

  it('closes a band along its other side', () => {
    expect(
      bandOf(
        [
          [0, 0],
          [0, 1],
        ],
        [
          [2, 0],
          [2, 1],
        ],
      ),
    ).toBe('M0.0 0.0L0.0 1.0L2.0 1.0L2.0 0.0Z')
  })
})

describe('forces and stresses', () => {
  it('are told with as many digits as they bear', () => {
    expect([0.4, 420, 6_300, 15_900].map(forceText)).toEqual(['0', '0.42', '6.3', '16'])
    expect([-31.2e6, 4e6, 0].map(stressText)).toEqual(['−31', '4', '0'])
  })
})
