/** What stands now: readings at one position, which a correction strikes and its undoing brings back, and holes. */
import type { BlockView, Quantity, State } from '@/api/generated'

export function standingAt(
  block: BlockView | null,
  quantity: Quantity,
  hole: number | null,
  hour: number | null,
): string[] {
  const present = block?.holes.find((one) => one.number === hole)
  return (block?.readings ?? [])
    .filter((row) => row.quantity === quantity && row.hole === hole && row.hour === hour && !row.struck)
    .filter((row) => quantity !== 'protrusion' || row.set_id === present?.set_id)
    .map((row) => row.reading_id)
}

/** The hole that has most to say: one that is out, else one that is not in. */
export function tellingHole<Hole extends { state: State }>(holes: readonly Hole[]): Hole | undefined {
  return holes.find((hole) => hole.state === 'out') ?? holes.find((hole) => hole.state !== 'in') ?? holes[0]
}
