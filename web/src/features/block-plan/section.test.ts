import { describe, expect, it } from 'vitest'

import type { BlockPlanView, PlanHoleView } from '@/api/generated'

import { sectionScale } from './section'

const hole = (more: Partial<PlanHoleView> = {}): PlanHoleView =>
  ({ hole: 1, state: 'in', now_m: 80e-6, present_depth_m: 8.82e-3, cut: null, ...more }) as PlanHoleView
const plan = (holes: PlanHoleView[]) => ({ holes }) as BlockPlanView

describe('the section of a block', () => {
  it('draws what stands proud above the deck and depths below it, deeper lower', () => {
    const scale = sectionScale(plan([hole(), hole({ present_depth_m: 8.9e-3 })]), 125e-6)
    expect(scale.up(0)).toBe(scale.deck)
    expect(scale.up(125e-6)).toBeLessThan(scale.up(50e-6))
    expect(scale.down(8.9e-3)).toBeGreaterThan(scale.down(8.82e-3))
    expect(scale.down(8.9e-3)).toBeLessThan(scale.bottom)
    expect(scale.up(125e-6)).toBeGreaterThan(0)
  })

  it('has a few round depths beside it', () => {
    const { ticks } = sectionScale(plan([hole(), hole({ present_depth_m: 8.92e-3 })]), 125e-6)
    expect(ticks.length).toBeGreaterThan(0)
    expect(ticks.length).toBeLessThan(5)
    for (const tick of ticks) expect(Math.round(tick * 1e6) % 10).toBe(0)
  })

  it('stands though nothing is measured', () => {
    const scale = sectionScale(plan([hole({ now_m: null, present_depth_m: null })]), null)
    expect(Number.isFinite(scale.down(0))).toBe(true)
  })
})
