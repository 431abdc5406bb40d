/**
 * Geometry of the limit track: a value's place between the least circle and the greatest circle.
 * Radii are in units of the ring's own drawing; clock positions go round from 12 h at the top.
 */
export const LEAST_RADIUS = 30
export const GREATEST_RADIUS = 46
/** How far off the track a mark may stand before it is held at the rim with an arrow. */
const INNERMOST = 19
const OUTERMOST = 56

export interface Place {
  x: number
  y: number
  radius: number
  /** The value is farther off than the drawing reaches. */
  beyond: '' | 'inside' | 'outside'
}

export interface Track {
  least: number | null
  greatest: number | null
}

/** A single limit still needs a scale: a window as wide as the limit itself, or 100 µm. */
function windowOf(track: Track): [number, number] | null {
  const { least, greatest } = track
  if (least !== null && greatest !== null) return [least, greatest]
  if (least !== null) return [least, least + (Math.abs(least) || 1e-4)]
  if (greatest !== null) return [greatest - (Math.abs(greatest) || 1e-4), greatest]
  return null
}

export function radiusOf(value: number, track: Track): number {
  const [least, greatest] = windowOf(track) ?? [value - 1e-4, value + 1e-4]
  return LEAST_RADIUS + ((value - least) / (greatest - least)) * (GREATEST_RADIUS - LEAST_RADIUS)
}

export function placeOf(hour: number, value: number, track: Track): Place {
  const free = radiusOf(value, track)
  const radius = Math.min(OUTERMOST, Math.max(INNERMOST, free))
  const turn = (hour / 12) * 2 * Math.PI
  return {
    x: radius * Math.sin(turn),
    y: -radius * Math.cos(turn),
    radius,
    beyond: free > OUTERMOST ? 'outside' : free < INNERMOST ? 'inside' : '',
  }
}
