/** Geometry of the ladder: how high a size stands, the first step large, those above it evenly. */
import type { CleanUpView, WallAfterView } from '@/api/generated'
import type { SmallUnit } from '@/shared/format/lengths'

/** Heights from 0 (standard) to 1 (above the last step) for sizes over standard. [m] */
export function heightOn(steps: readonly number[], oversize: number): number {
  const first = steps[0]
  if (first === undefined) return Math.min(1, Math.max(0, oversize / 1e-3))
  const ends = [
    0,
    FIRST,
    ...steps.slice(1).map((_, at) => FIRST + ((at + 1) / steps.length) * (1 - FIRST)),
    1,
  ]
  const last = steps.at(-1) ?? first
  const sizes = [0, ...steps, last + (last - (steps.at(-2) ?? 0))]
  if (oversize <= 0) return 0
  for (let at = 1; at < sizes.length; at++) {
    const low = sizes[at - 1] ?? 0
    const high = sizes[at] ?? 0
    if (oversize <= high) {
      const share = (oversize - low) / (high - low)
      return (ends[at - 1] ?? 0) + share * ((ends[at] ?? 1) - (ends[at - 1] ?? 0))
    }
  }
  return 1
}

/** Share of the height that the first step takes. */
export const FIRST = 0.55

export interface Ray {
  angle: number
  wear: number
}

/** A closed line round a hole: wear a side many times magnified on a circle. */
export function outlineOf(round: readonly Ray[], radius: number, times: number): string {
  return round
    .map(({ angle, wear }) => {
      const r = radius + wear * times
      const turn = (angle * Math.PI) / 180
      return `${(-r * Math.cos(turn)).toFixed(2)},${(-r * Math.sin(turn)).toFixed(2)}`
    })
    .join(' ')
}

/** Where the centre of a moved circle stands on the picture: front to the left, clockwise. */
export const movedTo = (move: number, degrees: number, times: number) => ({
  x: -move * times * Math.cos((degrees * Math.PI) / 180),
  y: -move * times * Math.sin((degrees * Math.PI) / 180),
})

/** A step as people call it: whole thou where it is one. */
export function plusText(oversize: number, unit: SmallUnit): string {
  const small = oversize / (unit === 'thou' ? 25.4e-6 : 1e-6)
  return `+${small.toFixed(Math.abs(small - Math.round(small)) < 0.01 ? 0 : 1)}`
}

export interface WallOfStep {
  step: CleanUpView['steps'][number]
  thinnest: WallAfterView | null
  rebores: number | null
}

/** The wall that each step leaves where it is thinnest of all holes. */
export function wallsOf(view: Pick<CleanUpView, 'steps' | 'holes'>): WallOfStep[] {
  return view.steps.map((step, at) => {
    const after = view.holes.flatMap((hole) => hole.rungs[at]?.wall ?? [])
    const thinnest = after.reduce<WallAfterView | null>(
      (least, one) => (one.left_m < (least?.left_m ?? Infinity) ? one : least),
      null,
    )
    const fewest = Math.min(...after.map((one) => one.rebores ?? Infinity))
    return { step, thinnest, rebores: Number.isFinite(fewest) ? fewest : null }
  })
}
