/** What the rings of a lens show: values at clock positions against the two circles. */
import type { HoleView, State } from '@/api/generated'
import type { ClockLens } from '@/shared/subjects'

export interface RingMark {
  hour: number
  value: number
  state: State
  preview?: boolean
}

export interface Preview {
  hole: number
  hour: number
  value: number
}

export interface Ring {
  least: number | null
  greatest: number | null
  marks: RingMark[]
  expected: number | null
}

export function ringOf(hole: HoleView, lens: ClockLens, preview: Preview | null): Ring {
  const ring = lens === 'protrusion' ? protrusionRing(hole) : depthRing(hole)
  if (preview?.hole !== hole.number) return ring
  const mark: RingMark = { hour: preview.hour, value: preview.value, state: 'not measured', preview: true }
  return { ...ring, marks: [...ring.marks, mark] }
}

function protrusionRing(hole: HoleView): Ring {
  return {
    least: hole.least_m,
    greatest: hole.greatest_m,
    marks: hole.marks.map((mark) => ({ hour: mark.hour, value: mark.mean_m, state: mark.state })),
    expected: hole.marks.length === 0 ? (hole.parts.predicted_m ?? hole.expected_m) : null,
  }
}

function depthRing(hole: HoleView): Ring {
  return {
    least: hole.parts.least_depth_m,
    greatest: hole.parts.greatest_depth_m,
    marks: hole.parts.ledge_depths.map((depth) => ({
      hour: depth.hour,
      value: depth.depth_m,
      state: depth.worn ? 'cannot tell' : 'in',
    })),
    expected: null,
  }
}

/** Mean of the ledge depths read, null where none is. */
export function meanDepth(hole: HoleView): number | null {
  const depths = hole.parts.ledge_depths
  return depths.length === 0 ? null : depths.reduce((sum, depth) => sum + depth.depth_m, 0) / depths.length
}
