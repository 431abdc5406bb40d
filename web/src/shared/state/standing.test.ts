import { describe, expect, it } from 'vitest'

import { tellingHole } from './standing'

describe('the hole that has most to say', () => {
  const hole = (number: number, state: 'in' | 'out' | 'cannot tell') => ({ number, state })

  it('is one that is out, else one that is not in, else the first', () => {
    expect(tellingHole([hole(1, 'in'), hole(3, 'cannot tell'), hole(5, 'out')])?.number).toBe(5)
    expect(tellingHole([hole(1, 'in'), hole(3, 'cannot tell')])?.number).toBe(3)
    expect(tellingHole([hole(1, 'in'), hole(2, 'in')])?.number).toBe(1)
    expect(tellingHole([])).toBeUndefined()
  })
})
