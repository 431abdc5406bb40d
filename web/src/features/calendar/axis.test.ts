import { describe, expect, it } from 'vitest'

import { axisOf, firstDay, placeLabels } from './axis'

const week = ['2026-11-30', '2026-12-01', '2026-12-02', '2026-12-03', '2026-12-04', '2026-12-08']
const view = { at: '2026-11-30T08:00:00+00:00', open_days: week, day_from_min: 480, day_until_min: 1020 }

describe('the axis of days', () => {
  it('begins on the Monday of the week before', () => {
    expect(firstDay('2026-12-02T10:00:00Z')).toBe('2026-11-23')
    expect(firstDay('2026-12-06T10:00:00Z')).toBe('2026-11-23')
    expect(firstDay('2026-12-02T10:00:00Z', 2)).toBe('2026-12-07')
  })

  it('gives a shut day less room, and a moment its place within its day', () => {
    const axis = axisOf(view, 0, 1000)
    const [monday, saturday] = [axis.days[7], axis.days[12]]
    expect(monday?.open).toBe(true)
    expect(saturday?.open).toBe(false)
    expect(saturday?.width).toBeLessThan((monday?.width ?? 0) / 2)
    const noon = axis.x('2026-11-30T12:30:00+00:00')
    expect(noon).toBeCloseTo((monday?.x ?? 0) + (monday?.width ?? 0) / 2)
    expect(axis.x('2026-11-30T03:00:00+00:00')).toBe(monday?.x)
  })

  it('takes a weekday that the shop is shut for what it is', () => {
    const axis = axisOf(view, 0, 1000)
    expect(axis.days.find((one) => one.day === '2026-12-07')?.open).toBe(false)
    expect(axis.days.find((one) => one.day === '2026-12-08')?.open).toBe(true)
  })

  it('keeps what lies outside at its edges', () => {
    const axis = axisOf(view, 100, 900)
    expect(axis.x('2020-01-01T08:00')).toBe(100)
    expect(axis.x('2030-01-01T08:00')).toBe(900)
    expect(axis.holds('2030-01-01')).toBe(false)
  })
})

describe('labels over a rule', () => {
  it('stand beside each other, else one line higher, else not at all', () => {
    const at = (x: number) => ({ text: 'clean deck', x, tone: '' })
    const placed = placeLabels([at(0), at(10), at(20), at(200)], 6)
    expect(placed.map((one) => [one.x, one.level])).toEqual([
      [0, 0],
      [10, 1],
      [200, 0],
    ])
  })
})
