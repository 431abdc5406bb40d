/** Where the stems of a block stand: hole after hole, in each its readings side by side, one scale for all of them. */
import type { HoleOffView } from '@/api/generated'

export interface Stem {
  x: number
  value_m: number
  expanded_m: number
}
export interface HoleStems {
  hole: HoleOffView
  middle: number
  left: number
  width: number
  stems: Stem[]
}

/** Holes side by side over a width; a hole with one figure has one stem. */
export function stemsOf(holes: readonly HoleOffView[], wide: number): HoleStems[] {
  const width = wide / holes.length
  return holes.map((hole, at) => {
    const read = hole.spots.length ? hole.spots.map((one) => one.off) : hole.middle ? [hole.middle] : []
    const step = Math.min(14, (width * 0.7) / Math.max(read.length, 1))
    const middle = (at + 0.5) * width
    const stems = read.map((one, place) => ({
      x: middle + (place - (read.length - 1) / 2) * step,
      value_m: one.value_m,
      expanded_m: one.expanded_m,
    }))
    return { hole, middle, left: at * width, width, stems }
  })
}

/** The lowest and the highest that is drawn, nought among them, at least so much on either side. */
export function endsOf(holes: readonly HoleStems[], least_m = 12e-6): { low: number; high: number } {
  const all = holes.flatMap((one) =>
    one.stems.flatMap((stem) => [stem.value_m - stem.expanded_m, stem.value_m + stem.expanded_m]),
  )
  return { low: Math.min(-least_m, ...all), high: Math.max(least_m, ...all) }
}

/** Round figures for a scale: about four steps of 1, 2 or 5. */
export function ticksOf(low: number, high: number, unit_m: number): number[] {
  const rough = (high - low) / unit_m / 4
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = ([1, 2, 5].find((one) => one * power >= rough) ?? 10) * power * unit_m
  const found = []
  for (let at = Math.ceil(low / step); at * step <= high; at++) found.push(at * step)
  return found
}
