import { describe, expect, it } from 'vitest'

import type { FieldView, ScansView, ScanView, WallView } from '@/api/generated'

import { facesOf, meshOf, stillOf, toneOf } from './shape'
import { scansShown, shownOf, showsOf } from './shown'

const field = (values: (number | null)[][], depths = [0.02, 0.12]): FieldView =>
  ({ depths_m: depths, angles_deg: [0, 90, 180, 270], values_m: values }) as unknown as FieldView
const EVEN = field([
  [10e-6, 10e-6, 10e-6, 10e-6],
  [10e-6, 10e-6, 10e-6, 10e-6],
])

describe('a wall as a body', () => {
  it('is a little wider than its bore where all of it is worn alike, and no wider at nought', () => {
    const worn = meshOf(EVEN, { kind: 'wear', offset: 0 }, 0.1)
    const radii = worn.corners.map(([x = 0, , z = 0]) => Math.hypot(x, z))
    for (const radius of radii) expect(radius).toBeCloseTo(1.22)
    const flat = meshOf(EVEN, { kind: 'diameter', offset: 10e-6 }, 0.1)
    for (const [x = 0, , z = 0] of flat.corners) expect(Math.hypot(x, z)).toBeCloseTo(1)
    expect(flat.shares.every((share) => share === 0)).toBe(true)
  })

  it('stands upright about its middle, the deck above, half of a diameter to a side', () => {
    const mesh = meshOf(EVEN, { kind: 'wear', offset: 0 }, 0.1)
    expect(mesh.corners[0]?.[1]).toBeCloseTo(1)
    expect(mesh.corners.at(-1)?.[1]).toBeCloseTo(-1)
    // A wear of 10 µm is drawn as 0.22 of half a bore of 100 mm; a diameter of as much swings half as far.
    expect(mesh.times).toBe(1100)
    expect(meshOf(EVEN, { kind: 'diameter', offset: 0 }, 0.1).times).toBe(2200)
  })

  it('leaves a hole where nothing was read', () => {
    const holed = field([
      [10e-6, null, 10e-6, 10e-6],
      [10e-6, 10e-6, 10e-6, 10e-6],
    ])
    const mesh = meshOf(holed, { kind: 'wear', offset: 0 }, 0.1)
    expect(mesh.shares[1]).toBeNull()
    // Two of four faces touch the corner that is missing.
    expect(facesOf(mesh)).toHaveLength(2)
    expect(facesOf(meshOf(EVEN, { kind: 'wear', offset: 0 }, 0.1))).toHaveLength(4)
  })

  it('closes round the bore: its last column is next to its first', () => {
    const last = facesOf(meshOf(EVEN, { kind: 'wear', offset: 0 }, 0.1)).at(-1)
    expect(last?.at).toEqual([3, 0, 4, 7])
    expect(last?.share).toBeCloseTo(1)
  })

  it('is paper at nought, copper where larger and blue where smaller', () => {
    const [red, , blue] = toneOf(1)
    expect(red).toBeGreaterThan(blue)
    const [cold, , deep] = toneOf(-1)
    expect(deep).toBeGreaterThan(cold)
    expect(toneOf(0)).toEqual([0.93, 0.9, 0.84])
    expect(toneOf(3)).toEqual(toneOf(1))
  })

  it('is drawn from the far side to the near one, the near one seen through', () => {
    const still = stillOf(meshOf(EVEN, { kind: 'wear', offset: 0 }, 0.1))
    expect(still).toHaveLength(4)
    expect(still.map((face) => face.fill.endsWith('/ 0.8)'))).toEqual([false, false, true, true])
    expect(still[0]?.points.split(' ')).toHaveLength(4)
  })
})

const load = (held: string, name: string) => ({
  held,
  name,
  field: EVEN,
  dots: [],
  circles: [],
  reference_m: 0.1,
})
const wall = (more: object) =>
  ({
    nominal_m: 0.1,
    wear: { dots: [], field: null },
    loads: [],
    changes: [],
    ...more,
  }) as unknown as WallView

describe('what of a wall can be shown', () => {
  it('begins with wear where it was read, then every load, then what a load changes', () => {
    const shows = showsOf(
      wall({
        wear: { dots: [{}], field: EVEN },
        loads: [load('free', 'bore 1'), load('in its plate', 'bore 2')],
        changes: [{ name: 'plate', field: EVEN, dots: [], circles: [] }],
      }),
    )
    expect(shows.map((one) => one.key)).toEqual(['wear', 'load-0', 'load-1', 'change-0'])
    expect(shows.map((one) => one.label)).toEqual(['wear a side', 'free', 'in its plate', 'change'])
    expect(shows[1]?.offset).toBe(0.1)
    expect(shownOf(shows, undefined)?.key).toBe('wear')
    expect(shownOf(shows, 'load-1')?.label).toBe('in its plate')
    expect(shownOf(shows, 'nothing of the kind')?.key).toBe('wear')
  })

  it('names two surveys under the same load by what they are, and says where nought comes from', () => {
    const shows = showsOf(wall({ nominal_m: null, loads: [load('free', 'first'), load('free', 'second')] }))
    expect(shows.map((one) => one.label)).toEqual(['first', 'second'])
    expect(shows[0]?.words).toContain('from the bore of the card')
    expect(shownOf(shows, undefined)?.label).toBe('second')
  })

  it('has nothing to show where nothing was read', () => {
    expect(showsOf(wall({}))).toEqual([])
    expect(shownOf([], undefined)).toBeNull()
  })

  it('shows scans by their radii, every other column as a dot, and what clamping changes', () => {
    const scan = (held: string): ScanView =>
      ({ held, name: 'scan of hole 2', field: EVEN, levels: [{ depth_m: 0.12 }] }) as unknown as ScanView
    const shows = scansShown({
      scans: [scan('free'), scan('not said')],
      changes: [scan('in its plate')],
    } as unknown as ScansView)
    expect(shows.map((one) => one.label)).toEqual(['scan free', 'scan scan of hole 2', 'scans: change'])
    expect(shows[0]?.dots.map((dot) => dot.angle_deg)).toEqual([0, 180])
    expect(shows[2]?.words).toContain('clamped less free')
  })
})
