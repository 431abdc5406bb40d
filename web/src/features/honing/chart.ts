/** Where rounds lie on the chart of the stock: strokes to the right with a gap at every stop, stock upwards. */
import type { HoneView } from '@/api/generated'

export interface ChartRound {
  stage: string
  strokes: number
  from: { x: number; y: number }
  to: { x: number; y: number } | null
  /** The edges of the band at its end; null where the round is made, or its rate is not learned. */
  band: { fast: number; slow: number } | null
  /** What is left after it. [m] */
  left: number | null
  isMade: boolean
  isTurning: boolean
}

export interface Chart {
  rounds: ChartRound[]
  ticks: { y: number; metres: number }[]
  top: number
  /** Where it stands now, while a round turns. */
  now: { x: number; y: number } | null
  stop: number | null
  stages: { stage: string; from: number; to: number }[]
}

export const FRAME = { left: 34, right: 500, top: 34, foot: 400 }
export type Frame = typeof FRAME
/** The frame that it is drawn in: on a phone as wide as that. */
export const frameOn = (phone: boolean): Frame => (phone ? { ...FRAME, right: 386 } : FRAME)
/** A stop is as wide as this share of all strokes. */
const GAP = 0.08
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500]

export function chartOf(view: HoneView, strokes: number, unitM: number, frame: Frame = FRAME): Chart {
  const finished = view.target?.finished.value_m ?? 0
  const made = view.made.filter((one) => one.strokes !== null)
  const rows = [
    ...made.map((one) => ({
      stage: one.stage,
      strokes: one.strokes ?? 0,
      before: one.before_m === null ? null : finished - one.before_m,
      after: one.after_m === null ? null : finished - one.after_m,
      edges: null as { fast: number; slow: number } | null,
      isMade: true,
    })),
    ...view.ahead.map((one) => ({
      stage: one.stage,
      strokes: one.strokes,
      before: one.before_m,
      after: one.after_m,
      edges: one.fast_m === null || one.slow_m === null ? null : { fast: one.fast_m, slow: one.slow_m },
      isMade: false,
    })),
  ]
  const total = Math.max(
    1,
    rows.reduce((sum, one) => sum + one.strokes, 0),
  )
  const gap = total * GAP
  const wide = total + gap * Math.max(0, rows.length - 1)
  const most = Math.max(unitM, view.left?.value_m ?? 0, ...rows.map((one) => one.before ?? 0))
  const step = STEPS.find((one) => most / unitM / one <= 6) ?? 1000
  const top = Math.ceil(most / unitM / step + 0.15) * step * unitM
  const x = (at: number) => frame.left + (at / wide) * (frame.right - frame.left)
  const y = (left: number) => frame.foot - (Math.max(0, left) / top) * (frame.foot - frame.top)
  let at = 0
  let isTurning = view.turning !== null
  const rounds: ChartRound[] = []
  for (const one of rows) {
    const turns = !one.isMade && isTurning
    if (turns) isTurning = false
    const before = one.before ?? rounds.at(-1)?.left ?? 0
    rounds.push({
      stage: one.stage,
      strokes: one.strokes,
      from: { x: x(at), y: y(before) },
      to: one.after === null ? null : { x: x(at + one.strokes), y: y(one.after) },
      band: one.edges && { fast: y(one.edges.fast), slow: y(one.edges.slow) },
      left: one.after,
      isMade: one.isMade,
      isTurning: turns,
    })
    at += one.strokes + gap
  }
  const turning = rounds.find((one) => one.isTurning) ?? null
  const span = turning ? x(turning.strokes) - x(0) : 0
  const share = turning ? Math.min(1.3, strokes / Math.max(1, turning.strokes)) : 0
  const stages: Chart['stages'] = []
  for (const one of rounds) {
    const end = one.from.x + x(one.strokes) - x(0)
    const last = stages.at(-1)
    if (last?.stage === one.stage) last.to = end
    else stages.push({ stage: one.stage, from: one.from.x, to: end })
  }
  const next = rounds.find((one) => !one.isMade) ?? null
  return {
    rounds,
    ticks: Array.from({ length: Math.round(top / unitM / step) + 1 }, (_, index) => ({
      y: y(index * step * unitM),
      metres: index * step * unitM,
    })),
    top,
    now: turning && {
      x: turning.from.x + span * share,
      y: turning.to ? turning.from.y + (turning.to.y - turning.from.y) * share : turning.from.y,
    },
    stop: next ? next.from.x + x(next.strokes) - x(0) : null,
    stages,
  }
}

/** What is left after so many strokes of the turning round, and its ±. [m] */
export function leftNow(view: HoneView, strokes: number): { left: number; within: number } | null {
  if (!view.left) return null
  const { value_m: left, expanded_m: within } = view.left
  if (!view.turning || !view.rate) return { left, within }
  const off = strokes * (view.rate.within_m ?? view.rate.per_stroke_m)
  return { left: left - strokes * view.rate.per_stroke_m, within: Math.hypot(within, off) }
}
