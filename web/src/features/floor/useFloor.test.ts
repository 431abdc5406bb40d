import { describe, expect, it } from 'vitest'

import type { FloorStrip } from '@/api/generated'

import { count, found } from './useFloor'

const strip = (name: string, kinds: string[], states: string[] = ['in'], released = false) =>
  ({
    job: { name, number: '26-1', customer: 'Basin Trust', serial: '', complaint: '' },
    engine: 'Six',
    holes: states.map((state) => ({ state })),
    points: kinds.map((kind) => ({ kind, words: '', state: 'out', hole: null })),
    released,
  }) as unknown as FloorStrip

const floor = [
  strip('Ferry', ['waits', 'due soon']),
  strip('Boat', ['zero doubtful']),
  strip('Pump', [], ['in', 'out']),
  strip('Home', ['late'], ['in'], true),
]
const names = (words: string, show: Parameters<typeof found>[2]) =>
  found(floor, words, show).map((one) => one.job.name)

describe('jobs that are looked for on the floor', () => {
  it('are found by every word that is typed, wherever it stands', () => {
    expect(names('basin fer', 'all')).toEqual(['Ferry'])
    expect(names('six', 'all')).toHaveLength(4)
    expect(names('nobody', 'all')).toEqual([])
  })

  it('are out or in doubt by their holes, their surveys and their zeros', () => {
    expect(names('', 'out')).toEqual(['Boat', 'Pump'])
  })

  it('are held up, due, or can go on', () => {
    expect(names('', 'waits')).toEqual(['Ferry'])
    expect(names('', 'due')).toEqual(['Ferry', 'Home'])
    expect(names('', 'ready')).toEqual(['Boat', 'Pump'])
    expect(count(floor, 'ready')).toBe(2)
  })
})
