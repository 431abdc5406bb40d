import { describe, expect, it } from 'vitest'

import { ticksOf } from './ticks'

describe('graduations of the rule', () => {
  it('are quarter hours, the hours longer, the beginning longest', () => {
    expect(ticksOf(1.5).map((tick) => tick.from)).toEqual([0, 6, 6, 6, 3, 6])
  })
  it('are one at least, however short a step is', () => {
    expect(ticksOf(0)).toHaveLength(1)
    expect(ticksOf(0.1)).toHaveLength(1)
  })
})
