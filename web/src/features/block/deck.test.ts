import { describe, expect, it } from 'vitest'

import { deckLayout } from './deck'

const card = (holes: number, heads: number[][] = [Array.from({ length: holes }, (_, i) => i + 1)]) => ({
  holes,
  heads,
  bore_m: 0.128,
  bore_pitch_m: 0.168,
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
})
