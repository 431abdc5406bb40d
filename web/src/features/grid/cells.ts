/** Which cells a grid has: one row a hole, one column a place, each cell a reading that can be typed. */
import type { BlockView, HoleView, Quantity, ReadingBody } from '@/api/generated'

/** What a grid is of: ledges with the flanges that stand on them, or protrusion. */
export type GridOf = 'ledges' | 'protrusion'

/** Where a cell's reading belongs; the client's own fields are added when it is sent. */
export type CellPlace = Pick<ReadingBody, 'quantity' | 'hole' | 'hour' | 'liner_mark' | 'land'>

export interface GridCell {
  key: string
  place: CellPlace
  /** What it is called when it is asked about: hole 5 at 6h, flange of L6. */
  name: string
  /** What is known there, mean of its readings. [m] */
  known: number | null
}

export interface GridRow {
  hole: HoleView
  /** The flange of the liner in it, or of one that lies ready. */
  flange: GridCell | null
  cells: GridCell[]
}

export const quantitiesOf = (of: GridOf): Quantity[] =>
  of === 'protrusion' ? ['protrusion'] : ['flange thickness', 'counterbore depth']

/** Holes in the order of their heads, as they are walked along; flanges of liners on the bench stand where one is missing. */
export function rowsOf(block: BlockView, of: GridOf): GridRow[] {
  const numbers = block.card.heads.flat()
  const holes = [...block.holes].sort((a, b) => numbers.indexOf(a.number) - numbers.indexOf(b.number))
  const onBench = block.liners.filter((one) => one.hole === null).map((one) => one.liner.mark)
  return holes.map((hole) => {
    const mark = hole.liner?.mark ?? onBench.shift()
    const flange = of === 'ledges' && mark !== undefined ? [flangeOf(block, mark)] : []
    return { hole, flange: flange[0] ?? null, cells: clockCells(block, hole, of) }
  })
}

function clockCells(block: BlockView, hole: HoleView, of: GridOf): GridCell[] {
  const quantity = of === 'protrusion' ? 'protrusion' : 'counterbore depth'
  const known = (hour: number) =>
    of === 'protrusion'
      ? hole.marks.find((mark) => mark.hour === hour)?.mean_m
      : hole.parts.ledge_depths.find((depth) => depth.hour === hour)?.depth_m
  return block.card.required_hours.map((hour) => ({
    key: cellKey(of, hole.number, hour),
    place: { quantity, hole: hole.number, hour },
    name: `hole ${hole.number} at ${hour}h`,
    known: known(hour) ?? null,
  }))
}

export const cellKey = (of: GridOf, hole: number, hour: number) => `${of} ${hole} ${hour}`

/** The flange of a liner at the land in use. */
function flangeOf(block: BlockView, mark: string): GridCell {
  const liner = block.liners.find((one) => one.liner.mark === mark)
  const { land } = block.card
  return {
    key: `flange ${mark}`,
    place: { quantity: 'flange thickness', liner_mark: mark, land },
    name: `flange of ${mark}`,
    known: liner?.flange.find((one) => one.land === land)?.thickness_m ?? null,
  }
}

/** All cells of a grid as Tab walks through them. */
export const walked = (rows: readonly GridRow[]): GridCell[] =>
  rows.flatMap((row) => [...(row.flange ? [row.flange] : []), ...row.cells])
