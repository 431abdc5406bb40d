/** Where things lie on the picture of the deck, to the scale of the block: a mark at its clock and distance. [m] */
import type { LayoutView } from '@/api/generated'
import { bankNames } from '@/shared/charts/deck'

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
