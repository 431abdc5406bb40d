import { describe, expect, it } from 'vitest'

import { phrasePieces, termText } from './terms'

const term = (symbol: string, value: number, kind: 'small' | 'size' | 'angle' | 'count' | 'share') => ({
  symbol,
  value,
  kind,
  note: '',
})

describe('terms', () => {
  it('writes each kind with its unit', () => {
    expect(termText(term('P', 100e-6, 'small'), 'µm')).toBe('100 µm')
    expect(termText(term('P', 76.2e-6, 'small'), 'thou')).toBe('3.0 thou')
    expect(termText(term('D', 8.898e-3, 'size'), 'µm')).toBe('8.898 mm')
    expect(termText(term('θ', 270, 'angle'), 'µm')).toBe('270°')
    expect(termText(term('p', 0.905, 'share'), 'µm')).toBe('91 %')
  })

  it('puts numbers into their sentence and leaves the rest alone', () => {
    const pieces = phrasePieces(
      { text: 'Cut to {D}, fit {s}', terms: [term('D', 9e-3, 'size'), term('s', 1e-4, 'size')] },
      'µm',
    )
    const written = pieces.map((piece) => (piece.unit ? `${piece.text} ${piece.unit}` : piece.text)).join('')
    expect(written).toBe('Cut to 9.000 mm, fit 0.100 mm')
    expect(pieces.filter((piece) => piece.number)).toHaveLength(2)
  })

  it('leaves braces without a number as they are', () => {
    expect(
      phrasePieces({ text: 'as {typed}', terms: [] }, 'µm')
        .map((p) => p.text)
        .join(''),
    ).toBe('as {typed}')
  })
})
