import { describe, expect, it } from 'vitest'

import { settleWords } from './settle'

describe('what would settle it', () => {
  it('names readings and gauges, or says that none will do', () => {
    const rule = { rule: 'protrusion', where: '6h', readings: 3, gauges: ['Deck indicator', 'Fine dial'] }
    expect(settleWords(rule)).toBe(
      'protrusion at 6h: 3 readings there, if their mean stays, or Deck indicator or Fine dial',
    )
    expect(settleWords({ rule: 'taper', where: '', readings: null, gauges: [] })).toBe(
      'taper: no gauge in the cabinet is fine enough',
    )
  })
})
