/** The order in which a block is measured: hole after hole, round the clock as the card says. */
import type { BlockView, HoleView } from '@/api/generated'
import type { ClockLens } from '@/shared/subjects'

export interface Spot {
  hole: number
  hour: number
}

/** A pass that measures the block anew, whatever was read before; what it has done so far. */
export interface Pass {
  done: string[]
}

export const spotKey = (spot: Spot) => `${spot.hole}·${spot.hour}`

/**
 * Holes that can be read under a lens: protrusion needs a liner, be it the unknown one it came in with; a ledge can be
 * read when the liner is out.
 */
function readable(hole: HoleView, lens: ClockLens): boolean {
  return lens === 'counterbore' || hole.liner !== null || hole.as_found
}

export function allSpots(block: BlockView, lens: ClockLens): Spot[] {
  return block.holes
    .filter((hole) => readable(hole, lens))
    .flatMap((hole) => block.card.required_hours.map((hour) => ({ hole: hole.number, hour })))
}

/** What was read of a spot may also wait in this browser, unsent. */
function isDone(
  block: BlockView,
  lens: ClockLens,
  spot: Spot,
  pass: Pass | null,
  waiting: string[],
): boolean {
  const hole = block.holes.find((one) => one.number === spot.hole)
  if (!hole) return true
  if (lens === 'protrusion' && hole.unreadable.some((one) => one.hour === spot.hour)) return true
  if (waiting.includes(spotKey(spot))) return true
  if (pass) return pass.done.includes(spotKey(spot))
  const marks = lens === 'protrusion' ? hole.marks : hole.parts.ledge_depths
  return marks.some((mark) => mark.hour === spot.hour)
}

export function missingSpots(
  block: BlockView,
  lens: ClockLens,
  pass: Pass | null,
  waiting: string[] = [],
): Spot[] {
  return allSpots(block, lens).filter((spot) => !isDone(block, lens, spot, pass, waiting))
}

/** The next spot to read after one, coming round again to what was left out; null when nothing is missing. */
export function nextSpot(
  block: BlockView,
  lens: ClockLens,
  after: Spot | null,
  pass: Pass | null,
  waiting: string[] = [],
): Spot | null {
  const order = allSpots(block, lens)
  const missing = new Set(missingSpots(block, lens, pass, waiting).map(spotKey))
  const at = after === null ? -1 : order.findIndex((spot) => spotKey(spot) === spotKey(after))
  const turned = [...order.slice(at + 1), ...order.slice(0, at + 1)]
  return turned.find((spot) => missing.has(spotKey(spot))) ?? null
}

/** One spot on or back in the order, whether it is missing or not. */
export function stepSpot(block: BlockView, lens: ClockLens, from: Spot | null, step: 1 | -1): Spot | null {
  const order = allSpots(block, lens)
  if (order.length === 0) return null
  const at = from === null ? (step > 0 ? -1 : 0) : order.findIndex((spot) => spotKey(spot) === spotKey(from))
  return order[(at + step + order.length) % order.length] ?? null
}

/** What is missing, hole by hole, in words: "5 at 6h, 9h". */
export function missingInWords(spots: Spot[]): string {
  const byHole = new Map<number, number[]>()
  for (const spot of spots) byHole.set(spot.hole, [...(byHole.get(spot.hole) ?? []), spot.hour])
  return [...byHole]
    .map(([hole, hours]) => `${hole} at ${hours.map((hour) => `${hour}h`).join(', ')}`)
    .join(' · ')
}
