import { describe, expect, it } from 'vitest'

import type { BlockView } from '@/api/generated'

import { standingAt } from './standing'

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
