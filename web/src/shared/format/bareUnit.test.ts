import { describe, expect, it } from 'vitest'

import { bareUnit } from './bareUnit'

describe('a bare number', () => {
  it('follows the unit switch', () => {
    expect(bareUnit('protrusion', 'thou')).toBe('thou')
    expect(bareUnit('protrusion', 'µm')).toBe('0.01 mm')
    expect(bareUnit('counterbore depth', 'thou')).toBe('inch')
    expect(bareUnit('flange thickness', 'µm')).toBe('mm')
  })
})
