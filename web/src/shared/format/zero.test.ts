import { describe, expect, it } from 'vitest'

import { stands, ZERO_CHOICES, zeroWords } from './zero'

describe('what a gauge was zeroed on', () => {
  it('is said with its size, and not at all on the datum', () => {
    expect(zeroWords({ zeroed_on: 'datum', zero_typed: '' })).toBe('')
    expect(zeroWords({ zeroed_on: 'low limit', zero_typed: '2 thou' })).toBe(
      'zeroed on the low limit of 2 thou',
    )
    expect(zeroWords({ zeroed_on: 'part itself', zero_typed: '' })).toBe('zeroed on the part itself')
    expect(zeroWords(undefined)).toBe('')
  })

  it('asks for a size wherever there is one', () => {
    expect(ZERO_CHOICES.map((one) => one.value).filter((on) => !stands(on))).toEqual(['datum', 'part itself'])
  })
})
