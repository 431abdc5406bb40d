/** Where the bolts of a plate or of the caps are drawn: in two rows over what they hold, round a circle over one hole. */
import type { TighteningView } from '@/api/generated'

export interface BoltAt {
  bolt: number
  x: number
  y: number
}

export interface BoltPicture {
  width: number
  height: number
  bolts: BoltAt[]
  /** Holes under a plate, caps of the mains; `what` is written in them. */
  held: { x: number; y: number; radius: number; what: string }[]
}

const PITCH = 150
const HEIGHT = 240
/** From the rim of the plate to the middle of a bolt. */
const EDGE = 48
const CIRCLE = 420

/** Numbered across and then along: 1 and 2 are the first pair from the front. */
export function boltPicture(
  one: Pick<TighteningView, 'order' | 'from_hole' | 'to_hole' | 'clamp'>,
): BoltPicture {
  const bolts = [...one.order].sort((a, b) => a - b)
  const from = one.from_hole
  const to = one.to_hole
  if (one.clamp === 'torque plate' && from !== null && from === to) return circle(bolts, String(from))
  const columns = Math.ceil(bolts.length / 2)
  const holes =
    from === null || to === null ? [] : Array.from({ length: to - from + 1 }, (_, at) => from + at)
  const width = Math.max(columns, holes.length + 1) * PITCH
  // Bolts stand from end to end, holes and caps between and under them.
  const inside = width - 2 * EDGE
  const column = (at: number) => EDGE + (columns > 1 ? (inside * at) / (columns - 1) : inside / 2)
  const share = inside / Math.max(1, holes.length)
  return {
    width,
    height: HEIGHT,
    bolts: bolts.map((bolt, at) => ({
      bolt,
      x: column(Math.floor(at / 2)),
      y: at % 2 === 0 ? EDGE : HEIGHT - EDGE,
    })),
    held: holes.length
      ? holes.map((hole, at) => ({
          x: EDGE + share * (at + 0.5),
          y: HEIGHT / 2,
          radius: 46,
          what: String(hole),
        }))
      : Array.from({ length: columns }, (_, at) => ({
          x: column(at),
          y: HEIGHT / 2,
          radius: 40,
          what: `cap ${at + 1}`,
        })),
  }
}

function circle(bolts: number[], hole: string): BoltPicture {
  const middle = CIRCLE / 2
  return {
    width: CIRCLE,
    height: CIRCLE,
    bolts: bolts.map((bolt, at) => {
      const angle = (at / bolts.length) * 2 * Math.PI
      return {
        bolt,
        x: middle + 160 * Math.sin(angle),
        y: middle - 160 * Math.cos(angle),
      }
    }),
    held: [{ x: middle, y: middle, radius: 100, what: hole }],
  }
}

/** The way from the bolt turned last to the one that is next, as points of a line; empty where there is no next. */
export function wayToNext(
  one: Pick<TighteningView, 'order' | 'done' | 'bolt'>,
  bolts: readonly BoltAt[],
): string {
  const place = (bolt: number | null | undefined) => bolts.find((at) => at.bolt === bolt)
  const next = place(one.bolt)
  const last = place([...one.order].reverse().find((bolt) => one.done.includes(bolt)))
  return next && last ? `${last.x},${last.y} ${next.x},${next.y}` : ''
}
