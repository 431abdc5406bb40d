import { describe, expect, it } from 'vitest'

import { startsOf } from './when'

describe('when what has to soak goes in', () => {
  it('counts back with a quarter to spare, the longest first', () => {
    // By hand: 3,900 s and a quarter are 81 min and a bit, 1,800 s are 37.5 min.
    expect(startsOf('09:00', { liner_s: 3900, oven_s: 1800, medium: 'freezer' })).toEqual([
      { what: 'liner into the freezer by', by: '07:38' },
      { what: 'block into the oven by', by: '08:22' },
    ])
  })

  it('says what goes in the day before, and leaves out what does not soak', () => {
    expect(startsOf('00:30', { liner_s: 3900, oven_s: 0, medium: 'dry ice' })).toEqual([
      { what: 'liner into the dry ice by', by: '23:08 the day before' },
    ])
    expect(startsOf('07:00', { liner_s: null, oven_s: 0, medium: null })).toEqual([])
    expect(startsOf('soon', { liner_s: 3900, oven_s: 1800, medium: 'freezer' })).toEqual([])
  })
})
