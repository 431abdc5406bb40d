import { describe, expect, it } from 'vitest'

import { roundTheClock, stepHour } from './clock'

describe('clock', () => {
  it('starts at 12 h', () => {
    expect(roundTheClock([3, 12, 9, 6])).toEqual([12, 3, 6, 9])
  })

  it('goes round both ways and comes back', () => {
    const hours = [12, 3, 6, 9]
    expect(stepHour(hours, 9, 1)).toBe(12)
    expect(stepHour(hours, 12, -1)).toBe(9)
    for (const hour of hours) expect(stepHour(hours, stepHour(hours, hour, 1), -1)).toBe(hour)
  })

  it('begins somewhere when it stands nowhere', () => {
    expect(stepHour([12, 6], null, 1)).toBe(12)
    expect(stepHour([12, 6], 3, -1)).toBe(6)
    expect(stepHour([], 3, 1)).toBeNull()
  })
})
