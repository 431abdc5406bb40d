import { describe, expect, it } from 'vitest'

import { rowsOf } from './rows'

describe('rows', () => {
  it('are the banks where all of one is legible side by side', () => {
    expect(rowsOf([[1, 2, 3]], 8)).toEqual([[1, 2, 3]])
    expect(
      rowsOf(
        [
          ['a', 'c'],
          ['b', 'd'],
        ],
        2,
      ),
    ).toEqual([
      ['a', 'c'],
      ['b', 'd'],
    ])
  })

  it('share a long bank evenly, in its order', () => {
    const twelve = Array.from({ length: 12 }, (_, at) => at + 1)
    expect(rowsOf([twelve], 8).map((row) => row.length)).toEqual([6, 6])
    expect(rowsOf([twelve.slice(0, 4)], 3)).toEqual([
      [1, 2],
      [3, 4],
    ])
    expect(rowsOf([twelve], Infinity)).toEqual([twelve])
  })
})
