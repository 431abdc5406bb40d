import { describe, expect, it } from 'vitest'

import { digitsFor, lengthText, sizeText, smallText, uncertaintyText, withinText } from './lengths'

// One inch is 25.4 mm by definition (international yard and pound agreement, 1959).
describe('lengths', () => {
  it('converts by the definition of the inch', () => {
    expect(lengthText(25.4e-6, 'thou')).toBe('1.0')
    expect(lengthText(25.4e-3, 'inch')).toBe('1.0000')
    expect(sizeText(8.9e-3, 'µm')).toBe('8.900 mm')
    expect(sizeText(8.9e-3, 'thou')).toBe('0.3504 inch')
  })

  it('shows sign only where asked, and none for zero', () => {
    expect(lengthText(50e-6, 'µm', { signed: true })).toBe('+50')
    expect(lengthText(-50e-6, 'µm')).toBe('−50')
    expect(lengthText(-0.2e-6, 'µm')).toBe('0')
  })

  it('never rounds across a limit', () => {
    const limit = 50e-6
    expect(lengthText(49.7e-6, 'µm', { limits: [limit] })).toBe('49.7')
    expect(lengthText(50e-6, 'µm', { limits: [limit] })).toBe('50')
    expect(lengthText(50.3e-6, 'µm', { limits: [limit] })).toBe('50.3')
  })

  it.each([-3, -1, -0.1, 0.1, 1, 3])('keeps the side of a limit %d µm away in both units', (away) => {
    const limit = 76.2e-6
    const value = limit + away * 1e-6
    for (const [unit, size] of [
      ['thou', 25.4e-6],
      ['µm', 1e-6],
    ] as const) {
      const shown = Number(lengthText(value, unit, { limits: [limit] })) * size
      expect(Math.sign(shown - limit)).toBe(Math.sign(away))
    }
  })

  it('rounds halves away from zero in spite of binary fractions', () => {
    expect(lengthText(1.005e-3, 'mm', { digits: 2 })).toBe('1.01')
    expect(lengthText(-1.005e-3, 'mm', { digits: 2 })).toBe('−1.01')
  })

  it('rounds an uncertainty up, never down', () => {
    expect(uncertaintyText(5.1e-6, 'µm')).toBe('6')
    expect(uncertaintyText(5e-6, 'µm')).toBe('5')
    expect(sizeText(68.58e-3, 'µm', 0.726e-3, { digits: 1 })).toBe('68.6 ±0.8 mm')
    expect(smallText(91.44e-6, 7.62e-6, 'thou')).toBe('+3.6 ±0.3 thou')
  })

  it('shows no more decimals than the gauge has steps', () => {
    expect(digitsFor(500e-6, 'mm')).toBe(1)
    expect(digitsFor(500e-6, 'inch')).toBe(2)
    expect(digitsFor(2.54e-6, 'mm')).toBe(3)
    expect(digitsFor(2.54e-6, 'inch')).toBe(4)
    expect(digitsFor(12.7e-6, 'thou')).toBe(1)
    expect(digitsFor(25.4e-6, 'thou')).toBe(0)
    expect(digitsFor(0, 'mm')).toBe(3)
    // A tenth of a micrometre, and half a tenth of a thou: a fine gauge shows more than the usual digits.
    expect(digitsFor(0.1e-6, 'µm')).toBe(1)
    expect(digitsFor(1.27e-6, 'thou')).toBe(2)
    expect(digitsFor(2e-6, 'µm')).toBe(0)
    expect(digitsFor(2e-6, 'thou')).toBe(1)
  })

  it('writes an uncertainty with two digits, never smaller than it is', () => {
    expect(withinText(4.42e-6, 'µm')).toBe('±4.5 µm')
    expect(withinText(4.5e-6, 'µm')).toBe('±4.5 µm')
    expect(withinText(13.1e-6, 'µm')).toBe('±14 µm')
    expect(withinText(4.42e-6, 'thou')).toBe('±0.18 thou')
    expect(withinText(725.7e-6, 'µm')).toBe('±0.73 mm')
    expect(withinText(725.7e-6, 'thou')).toBe('±0.029 inch')
    expect(withinText(0, 'µm')).toBe('±0 µm')
  })
})
