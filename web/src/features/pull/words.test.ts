import { describe, expect, it } from 'vitest'

import type { PullView } from '@/api/generated'

import { callBetween } from './usePull'
import { clockText, crankWords, watchWords } from './words'

const pull = (fields: Partial<PullView>): PullView => fields as PullView

describe('what two people do next', () => {
  it('slows down towards the ledge, and stops at it', () => {
    expect(crankWords(0.12)).toContain('Even turns')
    expect(crankWords(0.04)).toContain('Slow')
    expect(crankWords(0.015)).toContain('Quarter turns')
    expect(crankWords(0.0005)).toContain('Stop')
  })

  it('counts the turns to the next call', () => {
    const next = { to_go_m: 0.058, call: 'fifty', call_at_m: 0.05 }
    expect(watchWords(pull({ ...next, turn_m: 0.002 }))).toContain('“fifty” in 4 turns')
    expect(watchWords(pull({ ...next, turn_m: null }))).toContain('8 mm on')
    expect(watchWords(pull({ to_go_m: 0, call_at_m: null }))).toBe('Call “stop”.')
  })

  it('calls a depth once it is passed, and no other', () => {
    expect(callBetween(0.052, 0.05)).toBe('fifty')
    expect(callBetween(0.05, 0.048)).toBe('')
    expect(callBetween(0.041, 0.039)).toBe('forty: slow')
    expect(callBetween(0.1, 0.004)).toBe('fifty')
  })

  it('tells the time as people do', () => {
    expect([40, 400, 7260].map(clockText)).toEqual(['0 min 40 s', '6 min 40 s', '2 h 1 min'])
  })
})
