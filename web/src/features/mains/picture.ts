/** Where a main bore's directions are drawn: the band of its limits as a ring, what was read as marks across it. */
import type { MainView, OffLineView } from '@/api/generated'

export const MIDDLE = 100
const RING = 62
const HALF_BAND = 12
/** Beyond the limits a mark is drawn no farther than this, in half bands. */
const MOST = 2.6

export interface Mark {
  axis: number
  now: number | null
  before: number | null
  state: 'small' | 'big' | 'in' | 'none'
}

/** Radius of a size on the picture: the limits lie at the rims of the band. */
export function radiusOf(size: number, least: number, greatest: number): number {
  const middle = (least + greatest) / 2
  const half = Math.max((greatest - least) / 2, 1e-9)
  const share = Math.max(-MOST, Math.min(MOST, (size - middle) / half))
  return RING + share * HALF_BAND
}

/** The ring of the limits: its inner and its outer rim. */
export const BAND = { inner: RING - HALF_BAND, outer: RING + HALF_BAND, middle: RING }

export function marksOf(main: MainView): Mark[] {
  const { least_m: least, greatest_m: greatest } = main
  if (least === null || greatest === null) return []
  return main.directions.map((one) => {
    const now = one.now?.value_m ?? null
    return {
      axis: one.axis_deg,
      now: now === null ? null : radiusOf(now, least, greatest),
      before: one.before === null ? null : radiusOf(one.before.value_m, least, greatest),
      state: now === null ? 'none' : now < least ? 'small' : now > greatest ? 'big' : 'in',
    }
  })
}

/** Both ends of a direction: 0 is the joint of the cap, 90 upright, counted against the clock. */
export function endsOf(axis: number, radius: number): [number, number][] {
  const angle = (axis * Math.PI) / 180
  const [x, y] = [radius * Math.cos(angle), radius * Math.sin(angle)]
  return [
    [MIDDLE + x, MIDDLE - y],
    [MIDDLE - x, MIDDLE + y],
  ]
}

export interface LinePoint {
  x: number
  y: number
  from: number
  to: number
  was: number | null
}

export const LINE = { width: 600, height: 120, edge: 60 }

/** How much one unit of the drawing is, so that everything read and what is allowed are in it. [m] */
export function lineScale(rows: readonly OffLineView[], within: number | null): number {
  const all = [within ?? 0]
  for (const row of rows)
    for (const one of [row.upright, row.across, row.upright_was, row.across_was])
      if (one) all.push(Math.abs(one.value_m) + one.expanded_m)
  return (LINE.height / 2 - 8) / Math.max(...all, 5e-6)
}

/** Bores of the line, evenly apart, seen from one side; up is towards 12 h, or towards 3 h. */
export function linePoints(
  rows: readonly OffLineView[],
  side: 'upright' | 'across',
  scale: number,
): LinePoint[] {
  const step = (LINE.width - 2 * LINE.edge) / Math.max(1, rows.length - 1)
  const y = (metres: number) => LINE.height / 2 - metres * scale
  return rows.map((row, at) => {
    const one = row[side]
    const was = side === 'upright' ? row.upright_was : row.across_was
    return {
      x: LINE.edge + at * step,
      y: y(one.value_m),
      from: y(one.value_m - one.expanded_m),
      to: y(one.value_m + one.expanded_m),
      was: was === null ? null : y(was.value_m),
    }
  })
}
