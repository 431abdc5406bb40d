import { describe, expect, it } from 'vitest'

import type { BoresView, BoreView, PlaceReadView } from '@/api/generated'

import { boreFaces, boreRing, endsOf } from './faces'

const row = (level_um: string, axis_deg: number, value_m: number | null, more: object = {}) =>
  ({
    place: { level_um, axis_deg },
    value_m,
    past_m: null,
    state: 'in',
    doubtful: false,
    ...more,
  }) as unknown as PlaceReadView
const bore = (places: PlaceReadView[], more: object = {}): BoreView =>
  ({
    hole: 2,
    survey: {
      nominal_m: 0.1,
      least_m: 0.09999,
      greatest_m: 0.10002,
      places,
      part: { state: 'out', can_read: true },
      rules: [{}],
      form: { levels: [{ depth_m: 0.1, mean_m: 0.100005 }] },
      ...more,
    },
  }) as unknown as BoreView

describe('what stands on a hole of the deck', () => {
  it.each([
    [0, [9, 3]],
    [90, [12, 6]],
    [45, [10.5, 4.5]],
    [135, [1.5, 7.5]],
  ])('an axis of %d° ends at two clock positions, counted from the front at 9 h', (axis, hours) => {
    expect(endsOf(axis)).toEqual(hours)
  })

  it('a diameter stands at both ends of its axis, off its nominal, between limits off the nominal too', () => {
    const ring = boreRing(bore([row('100000', 90, 0.100004)]), '100000', null)
    expect(ring.marks.map((mark) => mark.hour)).toEqual([12, 6])
    expect(ring.marks[0]?.value).toBeCloseTo(4e-6, 12)
    expect(ring.least).toBeCloseTo(-10e-6, 12)
    expect(ring.greatest).toBeCloseTo(20e-6, 12)
  })

  it('only the level that is looked at is drawn, however its depth is written', () => {
    const places = [row('100000.000', 0, 0.1), row('50000', 0, 0.1), row('100000', 45, null)]
    expect(boreRing(bore(places), '100000', null).marks).toHaveLength(2)
  })

  it('what stands on a moved zero is drawn as what cannot be told', () => {
    const ring = boreRing(bore([row('100000', 0, 0.1, { doubtful: true })]), '100000', null)
    expect(ring.marks[0]?.state).toBe('cannot tell')
  })

  it('what is typed is shown at its own hole and level only', () => {
    const preview = { hole: 2, level_um: '100000', axis: 45, value: 0.10001 }
    expect(boreRing(bore([]), '100000', preview).marks.map((mark) => mark.preview)).toEqual([true, true])
    expect(boreRing(bore([]), '50000', preview).marks).toEqual([])
    expect(boreRing(bore([]), '100000', { ...preview, hole: 1 }).marks).toEqual([])
  })

  it('calls nothing in that no limit decides', () => {
    const undecided = bore([], { rules: [], part: { state: 'in', can_read: true } })
    const faces = boreFaces({ bores: [undecided] } as unknown as BoresView, null, null, () => '')
    expect(faces[0]?.words).toBe('read, no limit')
  })

  it('says the mean of the level, and where there is no liner to read', () => {
    const bores = {
      bores: [bore([]), bore([], { part: { state: 'not measured', can_read: false }, form: null })],
    } as unknown as BoresView
    const level = { depth_um: '100000', depth_m: 0.1 }
    const faces = boreFaces(bores, level, null, (_, mean) => mean.toFixed(6))
    expect(faces.map((face) => [face.value, face.state, face.words])).toEqual([
      ['0.100005', 'out', ''],
      ['–', 'not measured', 'no liner'],
    ])
  })
})
