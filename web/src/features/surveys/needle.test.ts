import { describe, expect, it } from 'vitest'

import { counted, playedBack } from './needle'

describe('a needle counted', () => {
  it('adds whole turns to what it shows, with their sign', () => {
    expect(counted({ turn: 10, turns: 2, shows: 1 })).toBe(21)
    expect(counted({ turn: 100, turns: -1, shows: -2.5 })).toBe(-102.5)
    expect(counted({ turn: 10, turns: 0, shows: 0.5 })).toBe(0.5)
  })

  it('is said back as the eye followed it', () => {
    expect(playedBack({ turn: 10, turns: 2, shows: 1 }, 10)).toBe('10, 20, 21')
    expect(playedBack({ turn: 10, turns: -1, shows: -4 }, 10)).toBe('-10, -14')
    expect(playedBack({ turn: 10, turns: 0, shows: 3 }, 10)).toBe('3')
  })
})
