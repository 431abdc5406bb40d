import { describe, expect, it } from 'vitest'

import type { PlaceReadView, PlaceView, SurveyView } from '@/api/generated'

import { missingPlaces, movePlace, nextPlace, placeKey, stepPlace } from './places'

const row = (place: PlaceView, read = false, unreadable = ''): PlaceReadView => ({
  place,
  name: '',
  value_m: null,
  as_read_m: null,
  expanded_m: null,
  readings: read ? [{ reading_id: 'r', typed: '1', typed_unit: 'µm', value_um: '1', taken_by: 'Wren' }] : [],
  unreadable,
  doubtful: false,
  on_pattern: true,
  state: null,
  past_m: null,
})
const survey = (...places: PlaceReadView[]) => ({ places }) as unknown as SurveyView
const bore = (level: number, axis: number, read = false, unreadable = '') =>
  row({ level_um: String(level), axis_deg: axis }, read, unreadable)
const point = (along: number, across: number) => row({ along_um: String(along), across_um: String(across) })

describe('the order of a survey', () => {
  it('goes on to the next place that is missing, round to what was left out', () => {
    const now = survey(bore(10, 0), bore(20, 0, true), bore(20, 45, false, 'a port'), bore(10, 45))
    expect(missingPlaces(now).map((one) => placeKey(one.place))).toEqual(['·10·0··', '·10·45··'])
    expect(nextPlace(now, '·10·0··')).toBe('·10·45··')
    expect(nextPlace(now, '·10·45··')).toBe('·10·0··')
    expect(nextPlace(now, null, ['·10·0··', '·10·45··'])).toBeNull()
  })

  it('steps to a place whether it is read or not', () => {
    const now = survey(bore(10, 0), bore(20, 0, true))
    expect(stepPlace(now, '·10·0··', 1)).toBe('·20·0··')
    expect(stepPlace(now, '·20·0··', 1)).toBe('·10·0··')
    expect(stepPlace(survey(), null, 1)).toBeNull()
  })

  it('takes a size written two ways for one place', () => {
    expect(placeKey({ level_um: '20000', axis_deg: 45 })).toBe(
      placeKey({ level_um: '20000.0', axis_deg: 45 }),
    )
  })

  it('moves over a grid by arrows and stays at its edge', () => {
    const grid = survey(point(0, -5), point(10, -5), point(10, 5), point(0, 5))
    expect(movePlace(grid, '···0·-5', 'right')).toBe('···10·-5')
    expect(movePlace(grid, '···10·-5', 'down')).toBe('···10·5')
    expect(movePlace(grid, '···10·5', 'right')).toBe('···10·5')
    expect(movePlace(grid, '···10·5', 'left')).toBe('···0·5')
  })
})
