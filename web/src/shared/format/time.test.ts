import { describe, expect, it } from 'vitest'

import { dayText, whenText } from './time'

describe('days and times', () => {
  it('takes the day of this place, early and late', () => {
    expect(dayText(new Date(2026, 0, 5, 0, 1))).toBe('2026-01-05')
    expect(dayText(new Date(2026, 10, 26, 23, 59))).toBe('2026-11-26')
  })

  it('says the time alone today, and the day before it otherwise', () => {
    const now = new Date(2026, 10, 26, 12, 0)
    expect(whenText(new Date(2026, 10, 26, 7, 5).toISOString(), now)).toBe('07:05')
    expect(whenText(new Date(2026, 10, 25, 7, 5).toISOString(), now)).toBe('25 Nov 07:05')
  })
})
