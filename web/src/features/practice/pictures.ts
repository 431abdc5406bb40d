/** What the pictures of an exercise share: their types, tones and the words of numbers on an axis. */
import { extent, ticks } from 'd3-array'

import type { AttemptView } from '@/api/generated'
import { lengthText, SIZE_WITH, type SmallUnit } from '@/shared/format/lengths'

/** The application sends every field of a picture, those with a usual value too. */
type Sent<T> = T extends (infer One)[]
  ? Sent<One>[]
  : T extends object
    ? { [Key in keyof T]-?: Sent<T[Key]> }
    : T

export type Picture = Sent<AttemptView['position']['pictures'][number]>
export const picturesOf = (of: { pictures: AttemptView['position']['pictures'] }): Picture[] =>
  of.pictures as Picture[]
export type PictureOf<Kind extends Picture['kind']> = Extract<Picture, { kind: Kind }>
export type DialShown = PictureOf<'dial'>
export type PlotShown = PictureOf<'plot'>
export type Tone = PlotShown['lines'][number]['tone']
type Across = PlotShown['across']

export const STROKES: Record<Tone, string> = {
  yours: 'stroke-part',
  truth: 'stroke-ink',
  limit: 'stroke-in',
  wrong: 'stroke-out',
  soft: 'stroke-ink-soft',
}
export const FILLS: Record<Tone, string> = {
  yours: 'fill-part',
  truth: 'fill-ink',
  limit: 'fill-in',
  wrong: 'fill-out',
  soft: 'fill-ink-soft',
}
export const DASHES: Partial<Record<Tone, string>> = { yours: '7 4', limit: '3 4', soft: '2 4' }

const METRES: Record<SmallUnit, number> = { thou: 25.4e-6, µm: 1e-6 }
const SIZES: Record<SmallUnit, number> = { thou: 25.4e-3, µm: 1e-3 }

/** How much one shown unit of an axis is, and what it is called. */
export function unitOf(kind: Across, unit: SmallUnit): { one: number; name: string } {
  const NAMED: Record<Exclude<Across, 'small' | 'size'>, [number, string]> = {
    angle: [1, '°'],
    tilt: [1, '°'],
    minutes: [1, 'min'],
    seconds: [1, 's'],
    celsius: [1, '°C'],
    force: [1000, 'kN'],
    count: [1, ''],
    strokes: [1, 'strokes'],
  }
  if (kind === 'small') return { one: METRES[unit], name: unit }
  if (kind === 'size') return { one: SIZES[unit], name: SIZE_WITH[unit] }
  const [one, name] = NAMED[kind]
  return { one, name }
}

export interface Axis {
  low: number
  high: number
  ticks: { at: number; words: string }[]
  name: string
}

/** An axis over all values, with a little room, its ticks at round numbers of the unit shown. */
export function axisOver(values: readonly number[], kind: Across, unit: SmallUnit, many = 5): Axis {
  const { one, name } = unitOf(kind, unit)
  const [least, most] = extent(values) as [number | undefined, number | undefined]
  const low = (least ?? 0) / one
  const high = (most ?? 1) / one
  const room = kind === 'small' || kind === 'force' ? (high - low || 1) * 0.08 : 0
  const [from, to] = [low - room, high + room || 1]
  return {
    low: from * one,
    high: to * one,
    name,
    ticks: ticks(from, to, many).map((at) => ({ at: at * one, words: String(Number(at.toPrecision(6))) })),
  }
}

/** Degrees that the hand of a dial stands turned, its nought at the top. */
export const handAt = (dial: DialShown, value: number): number =>
  ((value / dial.division_m) * 360) / dial.per_turn

/** What the gauge shows at a tilt, between the steps that came with it. */
export function shownAt(rock: NonNullable<DialShown['rock']>, tilt: number): number {
  const at = (tilt - rock.from_deg) / rock.step_deg
  const before = Math.max(0, Math.min(rock.values_m.length - 2, Math.floor(at)))
  const share = Math.max(0, Math.min(1, at - before))
  const [low, high] = [rock.values_m[before] ?? 0, rock.values_m[before + 1] ?? 0]
  return low + (high - low) * share
}

/** A bore from above: the deviation of a diameter drawn so large that the farthest is `reach` long. */
export function ringPath(values: readonly number[], radius: number, scale: number): string {
  const points = values.map((value, at) => {
    const angle = (at / values.length) * 2 * Math.PI
    const r = radius + value * scale
    return `${(r * Math.cos(angle)).toFixed(2)} ${(-r * Math.sin(angle)).toFixed(2)}`
  })
  return `M${points.join('L')}Z`
}

export const smallWords = (metres: number, unit: SmallUnit): string =>
  lengthText(metres, unit, { signed: true })
