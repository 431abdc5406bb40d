/** Where things lie in the picture of a matching: a column for each hole, heights over the deck, ledges under it. */
import type { MatchedHoleView, MatchingView, StandsView } from '@/api/generated'

const TALL = { left: 64, top: 118, deck: 330, wave: 350, sill: 372, bottom: 478, height: 484 }
/** Half as wide on a phone, so that its words stay as large. */
export const widthOf = (narrow: boolean) => (narrow ? 396 : 860)
/** A press has no ledge to stand on: the picture ends below its nought. */
export const frameOf = (view: MatchingView) =>
  view.of === 'press' ? { ...TALL, bottom: TALL.wave, height: TALL.wave + 6 } : TALL

interface Bar {
  x: number
  wide: number
  y: number
  bottom: number
}

export interface Column {
  hole: number
  x: number
  half: number
  /** Where its own limits stand: they move where it is on a shim. */
  least: number
  greatest: number
  now: (Bar & { stands: StandsView }) | null
  then: Bar & { liner: string; value: number; expanded: number; state: string | null }
  /** Walls of the pocket down to the ledge as it is, and the ledge once cut. */
  ledge: number
  cut: number | null
  shim: { y: number; tall: number; size: number } | null
}

export interface Picture {
  y: (metres: number) => number
  columns: Column[]
  /** Depths written at the side, with where they lie. */
  depths: { metres: number; y: number }[]
}

const seatOf = (hole: MatchedHoleView) => (hole.ledge_m ?? 0) + (hole.cut_m ?? 0)

export function pictureOf(view: MatchingView, wide: number): Picture {
  const frame = frameOf(view)
  const width = (wide - frame.left) / Math.max(1, view.holes.length)
  const heights = view.holes.flatMap((hole) => [
    hole.greatest_m,
    hole.stands.value_m + hole.stands.expanded_m,
    ...hole.ways.filter((one) => one.liner === hole.now).map((one) => one.value.value_m),
  ])
  const most = Math.max(...heights) * 1.06
  const least = Math.min(0, ...view.holes.map((one) => one.stands.value_m - one.stands.expanded_m))
  const y = (metres: number) => frame.deck - ((metres - least) / (most - least)) * (frame.deck - frame.top)
  const ledges = view.holes.map((one) => one.ledge_m ?? 0)
  const deepest = Math.max(...view.holes.map(seatOf)) + 20e-6
  const shallowest = Math.min(...ledges) - 15e-6
  const down = (metres: number) =>
    frame.sill + ((metres - shallowest) / (deepest - shallowest)) * (frame.bottom - frame.sill)
  const columns = view.holes.map((hole, at) => {
    const x = frame.left + width * (at + 0.5)
    const half = width * 0.4
    const isPress = view.of === 'press'
    const ledge = isPress ? frame.bottom : down(hole.ledge_m ?? 0)
    const rest = isPress ? frame.bottom : down(seatOf(hole) - (hole.shim_m ?? 0))
    const stands = hole.ways.find((one) => one.liner === hole.now)
    return {
      hole: hole.hole,
      x,
      half,
      least: y(hole.least_m),
      greatest: y(hole.greatest_m),
      now: stands
        ? { stands, x: x - half, wide: half * 0.8, y: y(stands.value.value_m), bottom: ledge }
        : null,
      then: {
        liner: hole.then,
        value: hole.stands.value_m,
        expanded: hole.stands.expanded_m,
        state: hole.state,
        x: x - half * 0.1,
        wide: half * 1.1,
        y: y(hole.stands.value_m),
        bottom: Math.max(rest, frame.wave + 6),
      },
      ledge,
      cut: hole.cut_m === null || isPress ? null : down(seatOf(hole)),
      shim:
        hole.shim_m === null
          ? null
          : {
              y: Math.max(rest, frame.wave + 6),
              tall: down(seatOf(hole)) - Math.max(rest, frame.wave + 6),
              size: hole.shim_m,
            },
    }
  })
  const marked = [shallowest + 15e-6, Math.max(...ledges)]
  const depths = view.of === 'press' ? [] : marked.map((metres) => ({ metres, y: down(metres) }))
  return { y, columns, depths }
}

export interface Arc {
  liner: string
  d: string
  head: string
  x: number
  y: number
  words: string
}

/** Moves between holes, each a little higher than the one before; what comes from the bench or goes there is in the list. */
export function arcs(view: MatchingView, wide: number): Arc[] {
  const { left, top } = frameOf(view)
  const width = (wide - left) / Math.max(1, view.holes.length)
  const place = new Map(view.holes.map((one, at) => [one.hole, left + width * (at + 0.5)]))
  const base = top - 26
  return view.moves.flatMap((move, at) => {
    const from = place.get(move.from_hole ?? -1)
    const to = place.get(move.to_hole ?? -1)
    if (from === undefined || to === undefined) return []
    const peak = base - 34 - (at % 3) * 24
    const end = to + (from < to ? -6 : 6)
    return [
      {
        liner: move.liner,
        d: `M${from} ${base}C${from} ${peak} ${end} ${peak} ${end} ${base}`,
        head: `M${end - 6} ${base - 4}L${end + 6} ${base - 4}L${end} ${base + 7}Z`,
        x: (from + end) / 2,
        y: base - (base - peak) * 0.75,
        words: `${move.liner} into ${move.to_hole}`,
      },
    ]
  })
}
