/** Where things stand on the section of a block along the crank: heights above the deck, and depths below it. */
import type { BlockPlanView, PlanHoleView } from '@/api/generated'

export interface SectionScale {
  deck: number
  /** A height above the deck, positive upwards. [m] */
  up: (metres: number) => number
  /** A depth below the deck. [m] */
  down: (metres: number) => number
  factor: number
  breakAt: number
  bottom: number
  ticks: number[]
}

const TOP = 16
const DECK = 62
const DEPTHS_FROM = 112
const BOTTOM = 286
/** A step of about this many parts. */
const TICKS = 3
const NICE = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000].map((um) => um * 1e-6)

const heights = (hole: PlanHoleView) =>
  [hole.now_m, hole.cut?.protrusion_m].filter((one): one is number => typeof one === 'number')
const depths = (hole: PlanHoleView) =>
  [hole.present_depth_m, hole.cut?.depth_m, hole.cut?.pit_m].filter(
    (one): one is number => typeof one === 'number',
  )

export function sectionScale(plan: BlockPlanView, greatest: number | null): SectionScale {
  const highest = Math.max(greatest ?? 0, 1e-5, ...plan.holes.flatMap(heights))
  const found = plan.holes.flatMap(depths)
  const least = found.length ? Math.min(...found) : 0
  const deepest = found.length ? Math.max(...found) : 1e-4
  const span = Math.max(deepest - least, 5e-5)
  const perMetre = (BOTTOM - 22 - DEPTHS_FROM) / span
  const upPerMetre = (DECK - TOP) / (highest * 1.08)
  const step = NICE.find((one) => span / one <= TICKS) ?? span
  const first = Math.ceil(least / step) * step
  const ticks: number[] = []
  for (let at = first; at <= deepest + step * 0.01; at += step) ticks.push(at)
  return {
    deck: DECK,
    up: (metres) => DECK - metres * upPerMetre,
    down: (metres) => DEPTHS_FROM + (metres - least) * perMetre,
    // One unit of the drawing is about a quarter of a millimetre on the screen.
    factor: Math.round((upPerMetre * 0.265e-3) / 10) * 10 || 1,
    breakAt: (DECK + DEPTHS_FROM) / 2 - 2,
    bottom: BOTTOM,
    ticks,
  }
}
