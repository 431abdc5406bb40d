import { describe, expect, it } from 'vitest'

import { pictureOf, placeOf, spotAt, stripsOf } from './picture'

const inLine = {
  arrangement: 'in-line' as const,
  banks: [[1, 2, 3]],
  bank_offset_m: 0,
  bore_m: 0.128,
  bore_pitch_m: 0.168,
}

describe('the deck to scale', () => {
  const picture = pictureOf(inLine, 0.072)

  it('stands one millimetre to a unit, number one at the front', () => {
    expect(picture.width).toBeCloseTo(504)
    expect(picture.holes.map((one) => [one.number, one.x])).toEqual([
      [1, 84],
      [2, 252],
      [3, 420],
    ])
    expect([picture.bore, picture.edge]).toEqual([64, 72])
  })

  it('tells clock and distance from the edge of the nearest counterbore', () => {
    const two = picture.holes[1]!
    expect(spotAt(picture, two.x, two.y - 75)).toEqual({
      hole: 2,
      hour: 12,
      distance: expect.closeTo(0.003) as number,
    })
    expect(spotAt(picture, two.x + 80, two.y)?.hour).toBe(3)
    expect(spotAt(picture, two.x, two.y + 80)?.hour).toBe(6)
    expect(spotAt(picture, two.x - 74, two.y)).toMatchObject({ hole: 2, hour: 9 })
  })

  it('lies on the ledge inside the edge, and nowhere in the bore', () => {
    const one = picture.holes[0]!
    expect(spotAt(picture, one.x, one.y - 68)?.distance).toBeLessThan(0)
    expect(spotAt(picture, one.x - 1, one.y - 3)?.hole).not.toBe(1)
  })

  it('puts a mark back where it was pointed to', () => {
    const spot = spotAt(picture, 252 + 60, 60)!
    const place = placeOf(picture, spot.hole, spot.hour, spot.distance, false)!
    expect(Math.hypot(place.x - 312, place.y - 60)).toBeLessThan(8)
    expect(placeOf(picture, 9, 12, 0, false)).toBeNull()
  })

  it('draws a deck for each bank of a V, the second shifted', () => {
    const v = pictureOf(
      {
        ...inLine,
        arrangement: 'V',
        banks: [
          [1, 3],
          [2, 4],
        ],
        bank_offset_m: 0.02,
      },
      0.072,
    )
    expect(v.decks.map((deck) => [deck.name, deck.x])).toEqual([
      ['bank A', 0],
      ['bank B', 20],
    ])
    expect(v.holes.find((one) => one.number === 4)!.y).toBeGreaterThan(
      v.holes.find((one) => one.number === 3)!.y,
    )
  })

  it('goes on in the next strip where a row is too long for the screen, each bank by itself', () => {
    expect(stripsOf(picture, Infinity)).toMatchObject([{ numbers: [1, 2, 3], x: 0, width: picture.width }])
    const v = pictureOf(
      {
        ...inLine,
        arrangement: 'V',
        banks: [
          [1, 3, 5, 7],
          [2, 4, 6, 8],
        ],
        bank_offset_m: 0.02,
      },
      0.072,
    )
    const strips = stripsOf(v, 3)
    expect(strips.map((strip) => strip.numbers)).toEqual([
      [1, 3],
      [5, 7],
      [2, 4],
      [6, 8],
    ])
    for (const strip of strips)
      for (const hole of v.holes.filter((one) => strip.numbers.includes(one.number))) {
        expect(hole.x - v.edge).toBeGreaterThan(strip.x)
        expect(hole.x + v.edge).toBeLessThan(strip.x + strip.width)
        expect(hole.y).toBeGreaterThan(strip.y)
        expect(hole.y).toBeLessThan(strip.y + strip.height)
      }
  })
})
