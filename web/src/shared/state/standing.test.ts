import { describe, expect, it } from 'vitest'

import type { BlockView } from '@/api/generated'

import { standingAt, tellingHole } from './standing'

const row = (id: string, changed: object = {}) => ({
  reading_id: id,
  set_id: 'now',
  quantity: 'protrusion',
  hole: 5,
  hour: 6,
  struck: false,
  ...changed,
})
const block = (rows: object[]) =>
  ({ holes: [{ number: 5, set_id: 'now' }], readings: rows }) as unknown as BlockView

describe('readings standing at a position', () => {
  it('leaves out struck ones, other positions and older sets', () => {
    const rows = [
      row('a'),
      row('b', { struck: true }),
      row('c', { hour: 9 }),
      row('d', { set_id: 'before' }),
      row('e', { quantity: 'counterbore depth' }),
    ]
    expect(standingAt(block(rows), 'protrusion', 5, 6)).toEqual(['a'])
    expect(standingAt(block(rows), 'counterbore depth', 5, 6)).toEqual(['e'])
    expect(standingAt(null, 'protrusion', 5, 6)).toEqual([])
  })
})

describe('the hole that has most to say', () => {
  const hole = (number: number, state: 'in' | 'out' | 'cannot tell') => ({ number, state })

  it('is one that is out, else one that is not in, else the first', () => {
    expect(tellingHole([hole(1, 'in'), hole(3, 'cannot tell'), hole(5, 'out')])?.number).toBe(5)
    expect(tellingHole([hole(1, 'in'), hole(3, 'cannot tell')])?.number).toBe(3)
    expect(tellingHole([hole(1, 'in'), hole(2, 'in')])?.number).toBe(1)
    expect(tellingHole([])).toBeUndefined()
  })
})
