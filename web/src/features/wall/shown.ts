/** What of a wall can be shown: wear a side, the bore under each load, and what a load changes. */
import type { CircleLevel, FieldView, ScansView, ScanView, WallDot, WallView } from '@/api/generated'

export type ShownKind = 'wear' | 'diameter' | 'change' | 'radius'

export interface Shown {
  key: string
  label: string
  kind: ShownKind
  words: string
  field: FieldView | null
  dots: WallDot[]
  circles: CircleLevel[]
  /** What the field is drawn against. [m] */
  offset: number
}

/** Wear first where it was read, then the bore as it was held, then the changes. */
export function showsOf(wall: WallView): Shown[] {
  const shows: Shown[] = []
  const loads = wall.loads
  if (wall.wear.dots.length > 0)
    shows.push({
      key: 'wear',
      label: 'wear a side',
      kind: 'wear',
      words: 'wear a side, from the unworn band',
      field: wall.wear.field,
      dots: wall.wear.dots,
      circles: loads.at(-1)?.circles ?? [],
      offset: 0,
    })
  loads.forEach((load, at) => {
    const alone = loads.filter((one) => one.held === load.held).length === 1
    shows.push({
      key: `load-${at}`,
      label: alone && load.held && load.held !== 'not said' ? load.held : load.name,
      kind: 'diameter',
      words: `on the diameter, ${wall.nominal_m === null ? 'from the bore of the card' : 'from the nominal'}`,
      field: load.field,
      dots: load.dots,
      circles: load.circles,
      offset: load.reference_m,
    })
  })
  wall.changes.forEach((change, at) => {
    shows.push({
      key: `change-${at}`,
      label: wall.changes.length === 1 ? 'change' : `change: ${change.name}`,
      kind: 'change',
      words: 'clamped less free, on the diameter',
      field: change.field,
      dots: change.dots,
      circles: change.circles,
      offset: 0,
    })
  })
  return shows
}

/** What the address asks for; else wear, else a change, else the newest load. */
export function shownOf(shows: readonly Shown[], asked: unknown): Shown | null {
  const named = shows.find((one) => one.key === asked)
  if (named) return named
  return (
    shows.find((one) => one.kind === 'wear') ??
    shows.find((one) => one.kind === 'change') ??
    shows.at(-1) ??
    null
  )
}

/** Scans of a hole, and what clamping changes by two of them: radii, seen through to every lobe. */
export function scansShown(scans: ScansView): Shown[] {
  const shown = (one: ScanView, key: string, label: string, words: string): Shown => ({
    key,
    label,
    kind: 'radius',
    words,
    field: one.field,
    dots: one.levels.flatMap((level) => dotsAt(one.field, level.depth_m)),
    circles: [],
    offset: 0,
  })
  return [
    ...scans.scans.map((one, at) => {
      const held = one.held && one.held !== 'not said' ? one.held : one.name
      return shown(
        one,
        `scan-${at}`,
        `scan ${held}`,
        'radius over half the standard, each level about its own centre',
      )
    }),
    ...scans.changes.map((one, at) =>
      shown(one, `scan-change-${at}`, 'scans: change', 'radius, clamped less free, centres laid together'),
    ),
  ]
}

/** Every tenth degree of a level of a field. */
function dotsAt(field: FieldView, depth: number): WallDot[] {
  const row = field.depths_m.findIndex((one) => Math.abs(one - depth) < 1e-6)
  return field.angles_deg.flatMap((angle, column) => {
    const value = field.values_m[row]?.[column] ?? null
    return value === null || column % 2 !== 0
      ? []
      : [{ level: '', depth_m: depth, angle_deg: angle, value_m: value, expanded_m: 0 }]
  })
}
