/** Geometry of a bore drawn as limit tracks: depth downwards, the value across, limits as two upright bars. */
import type { SurveyFormView } from '@/api/generated'

export interface Scale {
  /** Values at the left and right edge of the track. [m] */
  from: number
  to: number
  least: number | null
  greatest: number | null
}

/** Share of the window that is drawn beyond a limit on either side. */
const BEYOND = 0.6
/** A track without limits is at least this wide. [m] */
const NARROWEST = 20e-6

/** The window of the card with room on both sides; without limits, what was read. */
export function scaleOf(
  survey: Pick<SurveyFormView, 'least_m' | 'greatest_m' | 'nominal_m' | 'places'>,
): Scale {
  // What is to be read again is still drawn where it stood.
  const read = survey.places.map((row) => row.value_m ?? row.past_m).filter((one) => one != null)
  const { least_m: least, greatest_m: greatest } = survey
  if (least !== null && greatest !== null) {
    const room = (greatest - least) * BEYOND
    return { from: least - room, to: greatest + room, least, greatest }
  }
  const limits = [least, greatest].filter((one) => one !== null)
  const known = [...read, ...limits]
  if (known.length === 0) known.push(survey.nominal_m ?? 0)
  const low = Math.min(...known)
  const high = Math.max(...known)
  const room = Math.max((high - low) * 0.25, NARROWEST / 2 - (high - low) / 2, NARROWEST / 4)
  return { from: low - room, to: high + room, least, greatest }
}

export interface Across {
  x: number
  beyond: '' | 'left' | 'right'
}

/** Where a value stands across a track of some width; off the track it is held at the rim. */
export function acrossOf(value: number, scale: Scale, width: number): Across {
  const share = (value - scale.from) / (scale.to - scale.from)
  return {
    x: Math.min(1, Math.max(0, share)) * width,
    beyond: share < 0 ? 'left' : share > 1 ? 'right' : '',
  }
}

/** Evenly spaced heights of levels, in order of depth but never nearer than a row. */
export function rowsOf(depths: readonly number[], height: number, row: number): number[] {
  if (depths.length === 0) return []
  const least = Math.min(...depths)
  const span = Math.max(...depths) - least
  const free = height - row
  const rows = depths.map((depth) => row / 2 + (span === 0 ? free / 2 : ((depth - least) / span) * free))
  for (let at = 1; at < rows.length; at++) {
    rows[at] = Math.max(rows[at] ?? 0, (rows[at - 1] ?? 0) + row)
  }
  const over = Math.max(0, (rows.at(-1) ?? 0) - (height - row / 2))
  if (over === 0) return rows
  return depths.map((_, at) => row / 2 + (at / Math.max(1, depths.length - 1)) * free)
}
