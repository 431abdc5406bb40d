/** The face of a deck from above at its own proportions: what comes off where, for the cut that is chosen. */
import type { DeckFaceView, DeckOptionView } from '@/api/generated'
import { rowsOf } from '@/shared/charts/rows'

const WIDTH = 1000
const RIM = 34

export interface Cell {
  x: number
  y: number
  size: number
  /** What comes off in the middle of it [m]; nought or below where the cutter does not reach. */
  off: number
}

export interface FacePicture {
  width: number
  height: number
  scale: number
  x: (along: number) => number
  y: (across: number) => number
  cells: Cell[]
}

export function facePicture(face: DeckFaceView, depth: number): FacePicture | null {
  const relief = face.relief
  if (!relief) return null
  const step = relief.step_m
  const [long, wide] = [relief.below_m.length * step, (relief.below_m[0]?.length ?? 1) * step]
  const scale = (WIDTH - 2 * RIM) / long
  const x = (along: number) => RIM + (along - relief.along_m) * scale
  const y = (across: number) => RIM + (across - relief.across_m) * scale
  const cells = relief.below_m.flatMap((row, i) =>
    row.map((below, j) => ({
      x: RIM + i * step * scale,
      y: RIM + j * step * scale,
      size: step * scale,
      off: depth - below,
    })),
  )
  return { width: WIDTH, height: 2 * RIM + wide * scale, scale, x, y, cells }
}

/** A part of the picture that is drawn by itself, as wide as there is room. */
export interface Strip {
  numbers: number[]
  from: number
  width: number
  /** How much larger its figures are drawn than in a picture of a whole row. */
  times: number
}

/** The face in strips of so many bores at the most, from the front: a row goes on in the next strip. */
export function stripsOf(bores: DeckFaceView['bores'], picture: FacePicture, most: number): Strip[] {
  const row = [...bores].sort((one, other) => one.along_m - other.along_m)
  const middles = row.map((bore) => picture.x(bore.along_m))
  const edge = (at: number) =>
    at <= 0 ? 0 : at >= row.length ? picture.width : ((middles[at - 1] ?? 0) + (middles[at] ?? 0)) / 2
  let seen = 0
  return rowsOf([row], most).map((part) => {
    const from = edge(seen)
    seen += part.length
    const to = edge(seen)
    return {
      numbers: part.map((bore) => bore.number),
      from,
      width: to - from,
      times: Number.isFinite(most) ? Math.max(1, (to - from) / 500) : 1,
    }
  })
}

/** The lowest and the highest end of all liners after a cut, with whether it is in. */
export function endsOf(option: DeckOptionView): { low: number; high: number } | null {
  const low = option.holes.flatMap((one) => (one.lowest ? [one.lowest.stated.value_m] : []))
  const high = option.holes.flatMap((one) => (one.highest ? [one.highest.stated.value_m] : []))
  return low.length && high.length ? { low: Math.min(...low), high: Math.max(...high) } : null
}
