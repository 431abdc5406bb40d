import { describe, expect, it } from 'vitest'

import { atHoles, operation, route, wait } from '@/testing/route'

import { blockedWords, changeWords, nextWords } from './words'

const nothing = { added: [], removed: [], moved: [], hours: 0, holds: [] }

describe('sentences of the route', () => {
  it('say what a school changes, line by line', () => {
    expect(
      changeWords({ ...nothing, added: ['Heat', 'Soak'], hours: 0.5, holds: ['asks: temperatures'] }),
    ).toEqual(['comes: Heat, Soak', 'more by 0.5 h', 'asks: temperatures'])
    expect(changeWords({ ...nothing, removed: ['Plate'], moved: ['Deck'], hours: -1.1 })).toEqual([
      'goes: Plate',
      'stands elsewhere: Deck',
      'less by 1.1 h',
    ])
  })

  it('say so where a school leaves the route as it is', () => {
    expect(changeWords(nothing)).toEqual(['The route stays as it is; plans and wording follow.'])
  })

  it('name what is waited for, and forget what has come', () => {
    const waits = [wait(), wait({ words: 'oven' }), wait({ words: 'shims', ended: '2026-11-21T10:00:00Z' })]
    expect(blockedWords(route({ waits }))).toBe('piston 3 · oven')
    expect(blockedWords(route())).toBe('')
  })

  it('name the holes that are open', () => {
    const fit = operation('fit', {
      title: 'Fit the liner',
      holes: atHoles({ 1: 'in', 2: 'not measured', 3: 'out' }),
    })
    expect(nextWords(fit)).toBe('Fit the liner of holes 2, 3')
    expect(nextWords({ ...fit, holes: atHoles({ 1: 'in', 2: 'out' }) })).toBe('Fit the liner of hole 2')
    expect(nextWords(operation('deck', { title: 'Deck the block' }))).toBe('Deck the block')
  })
})
