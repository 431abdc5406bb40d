import { describe, expect, it } from 'vitest'

import { loadOf, partsOfLoad } from './ways'

const CAPS = ['main caps torqued', 'main caps off']

describe('how a part is loaded', () => {
  it('keeps caps and plate both', () => {
    const load = loadOf('torque plate on, gasket in', 'main caps torqued')
    expect(load).toBe('torque plate on, gasket in; main caps torqued')
    expect(partsOfLoad(CAPS, load)).toEqual(['torque plate on, gasket in', 'main caps torqued'])
  })

  it('reads what was kept as one word before', () => {
    expect(partsOfLoad(CAPS, 'main caps torqued')).toEqual(['', 'main caps torqued'])
    expect(partsOfLoad(CAPS, 'head on')).toEqual(['head on', ''])
    expect(partsOfLoad([], 'caps torqued')).toEqual(['caps torqued', ''])
    expect(loadOf('', 'main caps off')).toBe('main caps off')
  })
})
