/**
 * Where things stand on the drawing of the deck. One pitch is drawn PITCH wide, whatever it is in
 * millimetres, so rings keep their size; the bore follows the card's own proportion.
 */
import type { CardView } from '@/api/generated'

const PITCH = 132
const CELL = 214
const MOST_IN_A_ROW = 8
const HEAD_SPACE = 26
const HEAD_NAMES = 'ABCDEFGHIJKLMNOP'

export interface DeckHole {
  number: number
  x: number
  y: number
  top: number
}

export interface DeckLayout {
  width: number
  height: number
  pitch: number
  cell: number
  boreRadius: number
  holes: DeckHole[]
  rows: { y: number; width: number; height: number }[]
  bolts: { x: number; y: number }[]
  heads: { name: string; from: number; to: number; y: number }[]
}

type LayoutOf = Pick<CardView, 'holes' | 'heads' | 'bore_m' | 'bore_pitch_m'>

export function deckLayout(card: LayoutOf): DeckLayout {
  const rowCount = Math.ceil(card.holes / MOST_IN_A_ROW)
  const inRow = Math.ceil(card.holes / rowCount)
  const width = inRow * PITCH + 4
  const rowHeight = CELL + HEAD_SPACE + 8
  const rows = Array.from({ length: rowCount }, (_, row) => ({
    y: row * rowHeight + HEAD_SPACE,
    width: width - 4,
    height: CELL,
  }))
  const holes = Array.from({ length: card.holes }, (_, index) => {
    const row = Math.floor(index / inRow)
    const top = row * rowHeight + HEAD_SPACE + 2
    return { number: index + 1, x: (index % inRow) * PITCH + PITCH / 2 + 2, y: top + 76, top }
  })
  return {
    width,
    height: rowCount * rowHeight,
    pitch: PITCH,
    cell: CELL - 4,
    boreRadius: Math.min(62, ((card.bore_m / card.bore_pitch_m) * PITCH) / 2),
    holes,
    rows,
    bolts: rows.flatMap((row) =>
      Array.from({ length: inRow + 1 }, (_, index) => index * PITCH + 2)
        .map((x) => Math.min(width - 14, Math.max(14, x)))
        .flatMap((x) => [
          { x, y: row.y + 14 },
          { x, y: row.y + CELL - 14 },
        ]),
    ),
    heads: headBrackets(card.heads, holes),
  }
}

/** One bracket over each head; a head that goes on in the next row gets one there too. */
function headBrackets(
  heads: readonly (readonly number[])[],
  holes: readonly DeckHole[],
): DeckLayout['heads'] {
  return heads.flatMap((head, index) => {
    const under = holes.filter((hole) => head.includes(hole.number))
    const tops = [...new Set(under.map((hole) => hole.top))]
    return tops.map((top) => {
      const xs = under.filter((hole) => hole.top === top).map((hole) => hole.x)
      const name = `head ${HEAD_NAMES[index] ?? index + 1}`
      return {
        name,
        from: Math.min(...xs) - PITCH / 2 + 8,
        to: Math.max(...xs) + PITCH / 2 - 8,
        y: top - HEAD_SPACE + 16,
      }
    })
  })
}
