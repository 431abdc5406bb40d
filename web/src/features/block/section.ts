/**
 * Geometry of the hole in section. Heights above the break are to one magnified scale; the parts
 * themselves are broken. y grows downwards; the deck is where protrusion is zero.
 */
export const WIDTH = 440
export const HEIGHT = 300
export const DECK_LEFT = 6
export const STEP_X = 196
export const LEDGE_X = 246
export const LINER_X = 202
export const LINER_RIGHT = 330
const TOP = 34
const DECK_SPAN = 112
export const BREAK_Y = 196
export const LEDGE_Y = 246
export const BOTTOM = 296
/** A CSS pixel is 1/96 inch by definition. */
const PIXEL_M = 25.4e-3 / 96

export interface SectionInput {
  protrusion: number | null
  least: number | null
  greatest: number | null
  lip: number
  shim: number
  /** How much deeper the ledge is at this position than where the flange rests. */
  gap: number
}

export interface SectionPicture {
  yOf: (metres: number) => number
  factor: number
  linerTop: number
  ledge: number
  flangeUnderside: number
}

export function sectionPicture(input: SectionInput): SectionPicture {
  const top = input.protrusion === null ? 0 : input.protrusion + input.lip
  const values = [0, top, input.protrusion ?? 0, input.least ?? 0, input.greatest ?? 0]
  const high = Math.max(...values)
  const low = Math.min(...values)
  const pixels = DECK_SPAN / Math.max(high - low, 20e-6)
  const yOf = (metres: number) => TOP + (high - metres) * pixels
  const gap = Math.min(24, Math.max(0, input.gap * pixels))
  const shim = input.shim > 0 ? 9 : 0
  return {
    yOf,
    factor: Math.round((pixels * PIXEL_M) / 10) * 10,
    linerTop: yOf(input.protrusion ?? 0),
    ledge: LEDGE_Y + gap,
    flangeUnderside: LEDGE_Y - shim,
  }
}

/** A wave across a band, to draw where parts are broken. */
export function wave(from: number, to: number, y: number): string {
  const length = 44
  let path = `M${from} ${y}`
  for (let x = from; x < to; x += length) {
    const end = Math.min(x + length, to)
    path += ` Q${(x + end) / 2 - (end - x) / 4} ${y - 9} ${(x + end) / 2} ${y} T${end} ${y}`
  }
  return path
}
