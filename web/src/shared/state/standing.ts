/** Readings that stand at one position now: those a correction strikes, and its undoing brings back. */
import type { BlockView, Quantity } from '@/api/generated'

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
