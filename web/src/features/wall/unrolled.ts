/** Geometry of a wall unrolled: clock positions across, depth downwards, bands between even steps of a field. */
import { contours } from 'd3-contour'

import type { FieldView } from '@/api/generated'

export interface Frame {
  left: number
  top: number
  width: number
  height: number
  /** Depths at the upper and lower edge. [m] */
  from: number
  to: number
}

export const xOf = (frame: Frame, angle: number) => frame.left + (angle / 360) * frame.width
export const yOf = (frame: Frame, depth: number) =>
  frame.top + ((depth - frame.from) / (frame.to - frame.from)) * frame.height

export interface Spot {
  hour: number
  depth: number
}

/** How far across a wall is drawn: on a phone as wide as that. */
export const acrossOn = (phone: boolean) => (phone ? { left: 46, width: 296 } : { left: 62, width: 760 })

/** Where on the wall a point of the picture lies; held at its edges. */
export function spotOf(frame: Frame, x: number, y: number): Spot {
  const across = Math.min(1, Math.max(0, (x - frame.left) / frame.width))
  const down = Math.min(1, Math.max(0, (y - frame.top) / frame.height))
  const hour = (9 + across * 12) % 12
  return { hour: hour === 0 ? 12 : hour, depth: frame.from + down * (frame.to - frame.from) }
}

/** A step that gives five to ten bands: 1, 2 or 5 of a power of ten. [same unit] */
export function evenStep(greatest: number): number {
  if (!(greatest > 0)) return 1
  const rough = greatest / 9
  const power = 10 ** Math.floor(Math.log10(rough))
  const share = rough / power
  return (share <= 1 ? 1 : share <= 2 ? 2 : share <= 5 ? 5 : 10) * power
}

export interface Band {
  /** Where it begins, in the unit it was stepped in; negative below nought. */
  value: number
  /** Place among the bands of its side, from 1. */
  place: number
  d: string
  labels: { x: number; y: number }[]
}

/** Bands of a field, those above nought and those below, each over the one before it. */
export function bandsOf(field: FieldView, offset: number, unit: number, frame: Frame, step: number): Band[] {
  const columns = field.angles_deg.length
  // One more column on either side, so that bands run on over the seam.
  const rows = field.values_m.map((row) => {
    const numbers = row.map((one) => (one === null ? NaN : (one - offset) / unit))
    return [numbers.at(-1) ?? NaN, ...numbers, numbers[0] ?? NaN]
  })
  const finite = rows.flat().filter((one) => Number.isFinite(one))
  if (finite.length === 0) return []
  const turn = 360 / columns
  const x = (at: number) => xOf(frame, (at - 1.5) * turn)
  const depthAt = (at: number) => {
    const lower = Math.min(field.depths_m.length - 1, Math.max(0, Math.floor(at - 0.5)))
    const upper = Math.min(field.depths_m.length - 1, lower + 1)
    const share = Math.min(1, Math.max(0, at - 0.5 - lower))
    return (field.depths_m[lower] ?? 0) * (1 - share) + (field.depths_m[upper] ?? 0) * share
  }
  const y = (at: number) => yOf(frame, depthAt(at))
  const bands: Band[] = []
  for (const side of [1, -1]) {
    const most = Math.max(0, ...finite.map((one) => one * side))
    const thresholds = Array.from({ length: Math.floor(most / step + 1e-9) }, (_, at) => (at + 1) * step)
    const shapes = contours()
      .size([columns + 2, rows.length])
      .thresholds(thresholds)(rows.flat().map((one) => (Number.isFinite(one) ? one * side : -Infinity)))
    shapes.forEach((shape, at) => {
      const rings = shape.coordinates.flat()
      const path = rings.map(
        (ring) => `M${ring.map(([a, b]) => `${x(a ?? 0).toFixed(1)} ${y(b ?? 0).toFixed(1)}`).join('L')}Z`,
      )
      if (path.length > 0)
        bands.push({
          value: shape.value * side,
          place: at + 1,
          d: path.join(''),
          labels: labelsOf(rings, x, y, frame, y(rows.length)),
        })
    })
  }
  return bands
}

/** One label for each long enough line: at its deepest point inside the picture. */
function labelsOf(
  rings: number[][][],
  x: (at: number) => number,
  y: (at: number) => number,
  frame: Frame,
  end: number,
): { x: number; y: number }[] {
  return rings.flatMap((ring) => {
    if (ring.length < 12) return []
    const inside = ring
      .map(([a, b]) => ({ x: x(a ?? 0), y: y(b ?? 0) }))
      .filter(
        (one) =>
          one.x > frame.left + 24 &&
          one.x < frame.left + frame.width - 24 &&
          one.y < Math.min(frame.top + frame.height - 6, end - 5),
      )
    if (inside.length === 0) return []
    return [inside.reduce((deepest, one) => (one.y > deepest.y ? one : deepest))]
  })
}
