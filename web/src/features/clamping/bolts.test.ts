import { describe, expect, it } from 'vitest'

import type { TighteningView } from '@/api/generated'

import { boltPicture, wayToNext } from './bolts'

const plate = (more: object = {}) =>
  ({
    clamp: 'torque plate',
    order: [3, 1, 4, 2],
    from_hole: 1,
    to_hole: 3,
    done: [],
    bolt: 3,
    ...more,
  }) as unknown as TighteningView

describe('where bolts are drawn', () => {
  it('stand in pairs from end to end, the first pair at the front, holes between the rows', () => {
    const picture = boltPicture(plate())
    expect(picture.bolts.map((one) => one.bolt)).toEqual([1, 2, 3, 4])
    const [first, second, third] = picture.bolts
    expect(first?.x).toBe(second?.x)
    expect(first?.y).toBeLessThan(second?.y ?? 0)
    expect(third?.x).toBeGreaterThan(first?.x ?? 0)
    expect(picture.held.map((one) => one.what)).toEqual(['1', '2', '3'])
    for (const hole of picture.held) {
      expect(hole.x).toBeGreaterThan(first?.x ?? 0)
      expect(hole.x).toBeLessThan(third?.x ?? 0)
      expect(hole.y).toBe(picture.height / 2)
    }
  })

  it('stand round a plate that holds one hole, each as far from its middle', () => {
    const picture = boltPicture(plate({ from_hole: 2, to_hole: 2 }))
    const [hole] = picture.held
    expect(hole?.what).toBe('2')
    for (const bolt of picture.bolts)
      expect(Math.hypot(bolt.x - (hole?.x ?? 0), bolt.y - (hole?.y ?? 0))).toBeCloseTo(160)
    expect(picture.bolts[0]?.y).toBeLessThan(hole?.y ?? 0)
  })

  it('hold caps where there are no holes under them, one to a pair', () => {
    const picture = boltPicture(
      plate({ clamp: 'main caps', order: [1, 2, 3, 4, 5, 6], from_hole: null, to_hole: null }),
    )
    expect(picture.held.map((one) => one.what)).toEqual(['cap 1', 'cap 2', 'cap 3'])
    expect(picture.held.map((one) => one.x)).toEqual([0, 2, 4].map((at) => picture.bolts[at]?.x))
  })

  it('shows the way from the bolt turned last to the next', () => {
    const { bolts } = boltPicture(plate())
    expect(wayToNext(plate(), bolts)).toBe('')
    const [from, to] = [bolts[2], bolts[0]]
    expect(wayToNext(plate({ done: [3], bolt: 1 }), bolts)).toBe(`${from?.x},${from?.y} ${to?.x},${to?.y}`)
    expect(wayToNext(plate({ done: [3, 1, 4, 2], bolt: null }), bolts)).toBe('')
  })
})
