import { describe, expect, it } from 'vitest'

import { loadOf, partsOfLoad } from './ways'

describe('how a part is loaded', () => {
  it('keeps caps and plate both', () => {
    const load = loadOf('torque plate on, gasket in', 'main caps torqued')
    expect(load).toBe('torque plate on, gasket in; main caps torqued')
    expect(partsOfLoad('block bore', load)).toEqual(['torque plate on, gasket in', 'main caps torqued'])
  })

  it('reads what was kept as one word before', () => {
    expect(partsOfLoad('block bore', 'main caps torqued')).toEqual(['', 'main caps torqued'])
    expect(partsOfLoad('block bore', 'head on')).toEqual(['head on', ''])
    expect(partsOfLoad('main bore', 'caps torqued')).toEqual(['caps torqued', ''])
    expect(loadOf('', 'main caps off')).toBe('main caps off')
  })
})
