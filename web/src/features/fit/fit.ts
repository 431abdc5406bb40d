/** Geometry of the fit drawing: one scale of depth for every column, one of microns or thou for each. */
import { ticks } from 'd3-array'

import type { FitLevelView, FitView } from '@/api/generated'
import type { SmallUnit } from '@/shared/format/lengths'

export const TOP = 12
export const BOTTOM = 296

const UNIT_M: Record<SmallUnit, number> = { thou: 25.4e-6, µm: 1e-6 }

/** How deep the drawing goes: the liner's length, or a little below the last level read. [m] */
export function depthOf(fit: FitView): number {
  const last = fit.levels.at(-1)?.depth_m ?? 0.1
  return Math.max(fit.length_m ?? 0, last + 0.01)
}

export const yAt = (depth: number, whole: number) => TOP + (depth / whole) * (BOTTOM - TOP)

export interface Scale {
  x: (value: number) => number
  ticks: { x: number; text: string }[]
}

/** A scale over values [m] with even ticks in the unit shown, from left to right. */
export function scaleOf(values: number[], left: number, right: number, unit: SmallUnit, count = 5): Scale {
  const shown = values.map((one) => one / UNIT_M[unit])
  const [low, high] = [Math.min(...shown), Math.max(...shown)]
  const room = Math.max(high - low, unit === 'thou' ? 0.2 : 5) * 0.08
  const [from, to] = [low - room, high + room]
  const at = (value: number) => left + ((value - from) / (to - from)) * (right - left)
  const digits = unit === 'thou' && to - from < 4 ? 1 : 0
  return {
    x: (metres) => at(metres / UNIT_M[unit]),
    ticks: ticks(from, to, count).map((one) => ({
      x: at(one),
      text: `${one > 0 ? '+' : one < 0 ? '−' : ''}${Math.abs(one).toFixed(digits)}`,
    })),
  }
}

/** A line through points, straight between levels: nothing is drawn as if it were known there. */
export function lineOf(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], at) => `${at ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('')
}

/** A band between two lines. */
export function bandOf(
  left: readonly (readonly [number, number])[],
  right: readonly (readonly [number, number])[],
): string {
  return `${lineOf([...left, ...[...right].reverse()])}Z`
}

/** Values over the depth, from the deck to the foot: beyond the outer levels as it is there. */
export function downDepth(
  levels: readonly FitLevelView[],
  whole: number,
  x: (level: FitLevelView) => number,
): [number, number][] {
  const [first, last] = [levels[0], levels.at(-1)]
  if (!first || !last) return []
  return [
    [x(first), yAt(0, whole)],
    ...levels.map((one): [number, number] => [x(one), yAt(one.depth_m, whole)]),
    [x(last), yAt(whole, whole)],
  ]
}

/** Force as people say it: 6.3 kN, 0.42 kN, 12 kN. */
export function forceText(newtons: number): string {
  const kn = newtons / 1000
  if (kn < 0.005) return '0'
  return kn >= 9.95 ? kn.toFixed(0) : kn.toFixed(kn >= 0.995 ? 1 : 2)
}

/** Stress in MPa, with its sign: squeezed is negative. */
export function stressText(pascals: number): string {
  const mpa = Math.round(pascals / 1e6)
  return mpa < 0 ? `−${-mpa}` : String(mpa)
}

export const shareText = (share: number) => share.toFixed(2)
