import { describe, expect, it } from 'vitest'

import { about, hundredths, money, type TypedLine } from './words'

const line = (sheet: TypedLine['sheet'], low: string, worst: string): TypedLine => ({
  sheet,
  key: '',
  words: '',
  low,
  worst,
  tax: '20',
})

describe('money on the screen', () => {
  it('is written with its coins', () => {
    expect(money('3217.5')).toBe('3,217.50')
    expect(money(null)).toBe('0.00')
  })

  it('reads hundredths with a point or a comma, nothing else', () => {
    expect([hundredths('12.5'), hundredths('12,05'), hundredths(' 7 ')]).toEqual([1250, 1205, 700])
    expect(hundredths('1.234')).toBeNaN()
    expect(hundredths('a lot')).toBeNaN()
  })

  it('adds up about what was typed: 1500 + 600 to 700 + 40 h at 80', () => {
    const lines = [
      line('parts', '1500', '1500'),
      line('parts', '600', '700'),
      line('labour with machining', '40', '40'),
      line('parts', '', 'x'),
    ]
    expect(about(lines, '80')).toEqual({ low: 5300, worst: 5400 })
  })
})
