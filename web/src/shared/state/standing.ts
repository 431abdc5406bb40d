/** Which hole to show first. */
import type { State } from '@/api/generated'

/** The hole that has most to say: one that is out, else one that is not in. */
export function tellingHole<Hole extends { state: State }>(holes: readonly Hole[]): Hole | undefined {
  return holes.find((hole) => hole.state === 'out') ?? holes.find((hole) => hole.state !== 'in') ?? holes[0]
}
