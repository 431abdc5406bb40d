import { describe, expect, it } from 'vitest'

import { shimText } from './shims'

describe('shim of a card', () => {
  it('carries the unit of its card', () => {
    expect(shimText('0.10', 'mm')).toBe('0.10 mm')
    expect(shimText('10', 'inch')).toBe('10 thou')
  })

  it('keeps a unit that was typed, and nothing where there is none', () => {
    expect(shimText('0.25 mm', 'inch')).toBe('0.25 mm')
    expect(shimText('', 'mm')).toBe('')
  })
})
