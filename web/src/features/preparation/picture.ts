/** Where things lie on the picture of the deck, to the scale of the block: a mark at its clock and distance. [m] */
import type { LayoutView } from '@/api/generated'
import { bankNames } from '@/shared/charts/deck'
import { rowsOf } from '@/shared/charts/rows'

export interface Spot {
  hole: number
  hour: number
  /** From the edge of the counterbore outward; below nought it lies on the ledge. [m] */
  distance: number
}

export interface DeckPlace {
  number: number
  x: number
  y: number
}

export interface Picture {
  width: number
  height: number
  bore: number
  edge: number
  holes: DeckPlace[]
  decks: { name: string; x: number; y: number; width: number; height: number }[]
}

/** A deck for each bank, one above the other; lengths in mm, so that a stroke of one is one millimetre. */
export function pictureOf(
  card: Pick<LayoutView, 'arrangement' | 'banks' | 'bank_offset_m' | 'bore_m' | 'bore_pitch_m'>,
  edgeRadius: number,
): Picture {
  const pitch = card.bore_pitch_m * 1e3
  const edge = edgeRadius * 1e3
  const deep = edge * 2 + pitch * 0.34
  const names = bankNames(card)
  const decks = card.banks.map((bank, index) => ({
    name: names[index] ?? '',
    x: index === 0 ? 0 : card.bank_offset_m * 1e3,
    y: index * (deep + pitch * 0.12),
    width: bank.length * pitch,
    height: deep,
  }))
  const holes = card.banks.flatMap((bank, index) => {
    const deck = decks[index] as (typeof decks)[number]
    return bank.map((number, at) => ({
      number,
      x: deck.x + (at + 0.5) * pitch,
      y: deck.y + deep / 2,
    }))
  })
  return {
    width: Math.max(...decks.map((deck) => deck.x + deck.width)),
    height: Math.max(...decks.map((deck) => deck.y + deck.height)),
    bore: card.bore_m * 500,
    edge,
    holes,
    decks,
  }
}

/** A part of the picture that is drawn by itself, as wide as there is room. */
export interface Strip {
  numbers: number[]
  x: number
  y: number
  width: number
  height: number
  /** How much larger its small figures are drawn than on a bench. */
  times: number
}

/** All decks in one; or, where no more than so many holes are legible side by side, each deck in strips. */
export function stripsOf(picture: Picture, most: number): Strip[] {
  if (!Number.isFinite(most)) {
    const numbers = picture.holes.map((hole) => hole.number)
    return [{ numbers, x: 0, y: 0, width: picture.width, height: picture.height, times: 1 }]
  }
  return picture.decks.flatMap((deck) => {
    const holes = picture.holes.filter((hole) => hole.y > deck.y && hole.y < deck.y + deck.height)
    const pitch = deck.width / holes.length
    return rowsOf([holes], most).map((these) => {
      const width = these.length * pitch
      return {
        numbers: these.map((hole) => hole.number),
        x: (these[0]?.x ?? 0) - pitch / 2,
        y: deck.y,
        width,
        height: deck.height,
        times: Math.max(1, width / 330),
      }
    })
  })
}

/** The hole whose edge is nearest to a point of the picture, with clock and distance from that edge. */
export function spotAt(picture: Picture, x: number, y: number): Spot | null {
  let nearest: Spot | null = null
  for (const hole of picture.holes) {
    const [dx, dy] = [x - hole.x, y - hole.y]
    const radius = Math.hypot(dx, dy)
    const distance = (radius - picture.edge) / 1e3
    if (radius < picture.bore || (nearest && nearest.distance <= distance)) continue
    const turned = ((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360
    const hour = Math.round(turned / 5) / 6
    nearest = { hole: hole.number, hour: hour === 0 ? 12 : hour, distance }
  }
  return nearest
}

/** Where a mark stands on the picture: one on the ledge in the middle of it. */
export function placeOf(
  picture: Picture,
  hole: number,
  hour: number,
  distance: number | null,
  onLedge: boolean,
): { x: number; y: number } | null {
  const at = picture.holes.find((one) => one.number === hole)
  if (!at) return null
  const turned = (hour * Math.PI) / 6
  const radius = onLedge ? (picture.bore + picture.edge) / 2 : picture.edge + (distance ?? 0) * 1e3
  return { x: at.x + radius * Math.sin(turned), y: at.y - radius * Math.cos(turned) }
}
