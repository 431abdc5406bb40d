import { describe, expect, it } from 'vitest'

import { deckLayout, type LayoutOf } from './deck'

const line = (count: number) => Array.from({ length: count }, (_, index) => index + 1)
const card = (holes: number, heads: number[][] = [line(holes)], other: Partial<LayoutOf> = {}): LayoutOf => ({
  arrangement: 'in-line',
  banks: [line(holes)],
  bank_offset_m: 0,
  heads,
  bore_m: 0.128,
  bore_pitch_m: 0.168,
  ...other,
})

describe('deck layout', () => {
  it.each([1, 2, 6, 8, 9, 16])('places %d holes inside the drawing without overlap', (count) => {
    const deck = deckLayout(card(count))
    expect(deck.holes.map((hole) => hole.number)).toEqual(Array.from({ length: count }, (_, i) => i + 1))
    for (const hole of deck.holes) {
      expect(hole.x - deck.pitch / 2).toBeGreaterThanOrEqual(0)
      expect(hole.x + deck.pitch / 2).toBeLessThanOrEqual(deck.width)
      expect(hole.top + deck.cell).toBeLessThanOrEqual(deck.height)
      for (const other of deck.holes) {
        if (other.number !== hole.number && other.top === hole.top) {
          expect(Math.abs(other.x - hole.x)).toBeGreaterThanOrEqual(deck.pitch)
        }
      }
    }
  })

  it('draws the bore in the proportion of the block', () => {
    const deck = deckLayout(card(6))
    expect((2 * deck.boreRadius) / deck.pitch).toBeCloseTo(128 / 168, 6)
  })

  it('spans each head over its own holes', () => {
    const deck = deckLayout(
      card(6, [
        [1, 2, 3],
        [4, 5, 6],
      ]),
    )
    expect(deck.heads.map((head) => head.name)).toEqual(['head A', 'head B'])
    const third = deck.holes[2]!
    const fourth = deck.holes[3]!
    expect(deck.heads[0]!.to).toBeGreaterThan(third.x)
    expect(deck.heads[0]!.to).toBeLessThan(fourth.x)
    expect(deck.heads[1]!.from).toBeGreaterThan(third.x)
  })

  it('draws the banks of a V one above the other, the second set back by its offset', () => {
    const v8 = card(
      8,
      [
        [1, 3, 5, 7],
        [2, 4, 6, 8],
      ],
      {
        arrangement: 'V',
        banks: [
          [1, 3, 5, 7],
          [2, 4, 6, 8],
        ],
        bank_offset_m: 0.042,
      },
    )
    const deck = deckLayout(v8)
    expect(deck.rows.map((row) => row.name)).toEqual(['bank A', 'bank B'])
    const at = (number: number) => deck.holes.find((hole) => hole.number === number)!
    expect(at(2).x - at(1).x).toBeCloseTo((0.042 / 0.168) * deck.pitch, 6)
    expect(at(2).top).toBeGreaterThan(at(1).top)
    expect(at(3).x - at(1).x).toBeCloseTo(deck.pitch, 6)
    expect(deck.heads).toHaveLength(2)
  })

  it('draws a card whose sizes are still missing', () => {
    const deck = deckLayout({ ...card(4), bore_m: NaN, bore_pitch_m: NaN, bank_offset_m: NaN })
    expect(deck.holes.every((hole) => Number.isFinite(hole.x) && Number.isFinite(hole.y))).toBe(true)
    expect(Number.isFinite(deck.boreRadius)).toBe(true)
    expect(deckLayout({ ...card(0), banks: [[]] }).width).toBeGreaterThan(0)
  })
})
