/**
 * Where things stand on the drawing of the deck. One pitch is drawn PITCH wide, whatever it is in
 * millimetres, so rings keep their size; the bore follows the card's own proportion.
 */
import type { LayoutView } from '@/api/generated'

import { rowsOf } from './rows'

const PITCH = 132
const CELL = 214
/** Holes side by side before a row goes on in the next: as many as stay legible on a bench, or on a phone. */
export const MOST_IN_A_ROW = { bench: 8, phone: 3 }
const HEAD_SPACE = 26
const BANK_NAMES = 'AB'
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
  rows: { x: number; y: number; width: number; height: number; name: string }[]
  bolts: { x: number; y: number }[]
  heads: { name: string; from: number; to: number; y: number }[]
}

export type LayoutOf = Pick<
  LayoutView,
  'arrangement' | 'banks' | 'bank_offset_m' | 'heads' | 'bore_m' | 'bore_pitch_m'
>

interface Row {
  numbers: number[]
  shift: number
  name: string
}

/** Banks of a V by name; a block in line has one row and no name for it. */
export function bankNames(card: Pick<LayoutOf, 'arrangement' | 'banks'>): string[] {
  const isV = card.arrangement === 'V' && card.banks.length > 1
  return card.banks.map((_, index) => (isV ? `bank ${BANK_NAMES[index] ?? index + 1}` : ''))
}

/** Banks one above the other, the second shifted by its offset; a long row goes on in the next. */
function banksInRows(card: LayoutOf, most: number): Row[] {
  const names = bankNames(card)
  return card.banks.flatMap((bank, index) => {
    const offset = index === 0 ? 0 : (card.bank_offset_m / card.bore_pitch_m) * PITCH
    return rowsOf([bank], most).map((numbers) => ({
      numbers,
      shift: Number.isFinite(offset) ? Math.max(0, Math.min(PITCH, offset)) : 0,
      name: names[index] ?? '',
    }))
  })
}

export function deckLayout(card: LayoutOf, most = MOST_IN_A_ROW.bench): DeckLayout {
  const rowHeight = CELL + HEAD_SPACE + 8
  const placed = banksInRows(card, most).map((row, index) => ({ ...row, y: index * rowHeight + HEAD_SPACE }))
  const rows = placed.map((row) => ({
    x: row.shift + 2,
    y: row.y,
    width: row.numbers.length * PITCH,
    height: CELL,
    name: row.name,
  }))
  const holes = placed.flatMap((row) =>
    row.numbers.map((number, index) => ({
      number,
      x: row.shift + index * PITCH + PITCH / 2 + 2,
      y: row.y + 78,
      top: row.y + 2,
    })),
  )
  const proportion = card.bore_m / card.bore_pitch_m
  return {
    width: Math.max(PITCH, ...rows.map((row) => row.x + row.width)) + 2,
    height: Math.max(1, rows.length) * rowHeight,
    pitch: PITCH,
    cell: CELL - 4,
    boreRadius: Math.min(62, ((Number.isFinite(proportion) ? proportion : 0.75) * PITCH) / 2),
    holes,
    rows,
    bolts: rows.flatMap((row) =>
      Array.from({ length: Math.round(row.width / PITCH) + 1 }, (_, index) => row.x + index * PITCH)
        .map((x) => Math.min(row.x + row.width - 12, Math.max(row.x + 12, x)))
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
