import { describe, expect, it } from 'vitest'

import type { BlockView } from '@/api/generated'

import { cellKey, rowsOf, walked } from './cells'

const hole = (number: number, mark: string | null) => ({
  hole_id: `h${number}`,
  number,
  liner: mark === null ? null : { mark },
  marks: [{ hour: 12, mean_m: 8e-5 }],
  parts: { ledge_depths: [{ hour: 3, depth_m: 8.9e-3 }] },
})
const liner = (mark: string, at: number | null) => ({
  liner: { mark },
  hole: at,
  flange: [
    { land: 'lip', thickness_m: 9e-3 },
    { land: 'flat land', thickness_m: 8.8e-3 },
  ],
})
const block = {
  card: { heads: [[3, 1], [2]], required_hours: [12, 3], land: 'flat land' },
  holes: [hole(1, 'A'), hole(2, null), hole(3, null)],
  liners: [liner('A', 1), liner('B', null)],
} as unknown as BlockView

describe('the cells of a grid', () => {
  it('walks the holes as the heads stand, flange first', () => {
    expect(rowsOf(block, 'ledges').map((row) => row.hole.number)).toEqual([3, 1, 2])
    expect(walked(rowsOf(block, 'ledges')).map((cell) => cell.key)).toEqual([
      'flange B',
      'ledges 3 12',
      'ledges 3 3',
      'flange A',
      'ledges 1 12',
      'ledges 1 3',
      'ledges 2 12',
      'ledges 2 3',
    ])
  })

  it('knows what was read, at the land in use', () => {
    const [, one] = rowsOf(block, 'ledges')
    expect(one?.flange?.known).toBe(8.8e-3)
    expect(one?.cells.map((cell) => cell.known)).toEqual([null, 8.9e-3])
    expect(rowsOf(block, 'protrusion')[1]?.cells.map((cell) => cell.known)).toEqual([8e-5, null])
  })

  it('has no flanges under protrusion, and says where each reading belongs', () => {
    const rows = rowsOf(block, 'protrusion')
    expect(rows.every((row) => row.flange === null)).toBe(true)
    expect(rows[0]?.cells[1]).toMatchObject({
      key: cellKey('protrusion', 3, 3),
      place: { quantity: 'protrusion', hole: 3, hour: 3 },
      name: 'hole 3 at 3h',
    })
  })
})
