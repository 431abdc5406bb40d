import { describe, expect, it } from 'vitest'

import type { OptionOfHole } from '@/api/generated'

import { capital, moneyText, percent, standText, summary, waitText } from './words'

const option = (more: object = {}): OptionOfHole =>
  ({
    kind: 'cut and shim',
    why_not: '',
    money: 412.4,
    hours: 3,
    days: 0,
    chance: 0.974,
    out: 0,
    unsure: 0,
    holes: [{ state: 'in' }],
    ...more,
  }) as unknown as OptionOfHole

describe('options in words', () => {
  it('say a chance in whole percents, and money with its currency', () => {
    expect([percent(null), percent(0.974), percent(1)]).toEqual(['–', '97 %', '100 %'])
    expect(moneyText(null, 'crowns')).toBe('not priced')
    expect(moneyText(1234.6, 'crowns')).toBe('1,235 crowns')
    expect(moneyText(12, '')).toBe('12')
  })

  it('say hours, and days of waiting', () => {
    expect(waitText(option())).toBe('3.0 h, no waiting')
    expect(waitText(option({ days: 1 }))).toBe('3.0 h, 1 day of waiting')
    expect(waitText(option({ days: 4 }))).toBe('3.0 h, 4 days of waiting')
  })

  it('say how all holes stand: what is out first', () => {
    expect(standText(option({ out: 1, unsure: 2 }))).toBe('1 out, 2 cannot tell')
    expect(standText(option({ out: 2 }))).toBe('2 out')
    expect(standText(option({ unsure: 3 }))).toBe('3 cannot tell')
    expect(standText(option())).toBe('97 % in')
    expect(standText(option({ holes: [{ state: null }] }))).toBe('97 % in, once read')
  })

  it('sum up the suggested one, or why it is none', () => {
    const view = { currency: 'crowns' }
    expect(summary(option(), view)).toBe('Cut and shim: 97 % all in, for 412 crowns, 3.0 h, no waiting')
    expect(summary(option({ money: null }), view)).toBe('Cut and shim: 97 % all in, for 3.0 h, no waiting')
    expect(summary(option({ why_not: 'no ledge is left' }), view)).toBe('Cut and shim: no ledge is left')
    expect(capital('')).toBe('')
  })
})
