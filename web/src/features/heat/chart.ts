/** Where things stand in the pictures of a drop: seconds across, clearance up; temperatures of both parts. */
import { ticks } from 'd3-array'

import type { WindowView } from '@/api/generated'

/** The frame of a window: half as wide on a phone, so that its words stay as large. */
export const FRAME = { left: 58, top: 14, bottom: 356 }
export const rightOf = (narrow: boolean) => (narrow ? 360 : 828)

export interface WindowChart {
  x: (seconds: number) => number
  y: (metres: number) => number
  band: string
  likely: string
  seconds: number[]
  lengths: number[]
}

const line = (points: readonly (readonly [number, number])[]) =>
  points.map(([x, y], at) => `${at ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('')

/** The band of a window, its likely course, and both scales; `step` is one of the unit shown, in metres. */
export function windowChart(window: WindowView, wanted_m: number, step: number, right: number): WindowChart {
  const { times_s: times, low_m: low, likely_m: likely, high_m: high } = window
  // The picture ends a little after the window does: what comes then is as it is.
  const shut = window.likely_s ?? window.grabs_s
  const last = times[times.length - 1] ?? 1
  // Shut before it enters, there is nothing to look closer at.
  const closer = shut !== null && shut > window.enter_s
  const until = closer ? Math.min(last, window.enter_s + 1.6 * (shut - window.enter_s) + 2) : last
  const seen = times.map((t, at) => ({ t, at })).filter(({ t }) => t <= until)
  const upper = Math.max(wanted_m * 1.4, ...seen.map(({ at }) => high[at] ?? 0)) * 1.06
  const lower = Math.max(Math.min(-0.6 * wanted_m, ...seen.map(({ at }) => low[at] ?? 0)), -upper * 0.45)
  const x = (s: number) => FRAME.left + (s / until) * (right - FRAME.left)
  const y = (m: number) => {
    const share = (Math.min(upper, Math.max(lower, m)) - lower) / (upper - lower)
    return FRAME.bottom - share * (FRAME.bottom - FRAME.top)
  }
  const at = (values: readonly number[]) => seen.map(({ t, at: i }) => [x(t), y(values[i] ?? 0)] as const)
  return {
    x,
    y,
    band: `${line(at(high))}${line([...at(low)].reverse()).replace('M', 'L')}Z`,
    likely: line(at(likely)),
    seconds: ticks(0, until, right > 500 ? 8 : 4),
    lengths: ticks(lower / step, upper / step, 7).map((one) => one * step),
  }
}

export const PAIRS = { left: 56, right: 560, top: 16, bottom: 380 }
/** Coldest and warmest liner, coldest and warmest block of the picture of pairs. [°C] */
export const SPAN = { liner: [-200, 40], block: [0, 200] } as const

export const xLiner = (c: number) =>
  PAIRS.left + ((c - SPAN.liner[0]) / (SPAN.liner[1] - SPAN.liner[0])) * (PAIRS.right - PAIRS.left)
export const yBlock = (c: number) =>
  PAIRS.bottom - ((c - SPAN.block[0]) / (SPAN.block[1] - SPAN.block[0])) * (PAIRS.bottom - PAIRS.top)

/** A line of pairs as it is drawn, and the face on the side where it is clear: above it, towards the hot and the cold. */
export function pairsLine(pairs: readonly { liner_c: number; block_c: number }[]): string {
  return line(pairs.map((one) => [xLiner(one.liner_c), yBlock(one.block_c)] as const))
}

export function pairsFace(pairs: readonly { liner_c: number; block_c: number }[]): string {
  const first = pairs[0]
  const last = pairs[pairs.length - 1]
  if (!first || !last) return ''
  const top = yBlock(SPAN.block[1])
  return `${pairsLine(pairs)}L${xLiner(last.liner_c)} ${top}L${xLiner(first.liner_c)} ${top}Z`
}

/** The temperatures under a point of the picture of pairs, whole degrees within what the sliders take. */
export function pairAt(x: number, y: number): { liner_c: number; block_c: number } {
  const liner =
    SPAN.liner[0] + ((x - PAIRS.left) / (PAIRS.right - PAIRS.left)) * (SPAN.liner[1] - SPAN.liner[0])
  const block =
    SPAN.block[0] + ((PAIRS.bottom - y) / (PAIRS.bottom - PAIRS.top)) * (SPAN.block[1] - SPAN.block[0])
  const within = (value: number, [least, most]: readonly [number, number]) =>
    Math.round(Math.min(most, Math.max(least, value)))
  return { liner_c: within(liner, [-196, 40]), block_c: within(block, SPAN.block) }
}

/** A time as it is said in a shop. */
export function span(seconds: number): string {
  if (seconds < 100) return `${Math.round(seconds)} s`
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`
  return `${(seconds / 3600).toFixed(1)} h`
}
