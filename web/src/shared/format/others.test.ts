import { describe, expect, it } from 'vitest'

import { newtonMetres, torqueText } from './others'

describe('torques', () => {
  it.each([
    ['70', 70],
    ['70 N·m', 70],
    ['70,5 Nm', 70.5],
    ['52 lbf·ft', 70.5],
    ['52 ft lb', 70.5],
    ['100 lb-ft', 135.58],
  ])('reads %s as %s N·m: the pound-force and the foot are exact by definition', (typed, expected) => {
    expect(newtonMetres(typed)).toBeCloseTo(expected, 2)
  })

  it('leaves to its check what is no torque', () => {
    expect(newtonMetres('tight')).toBe('tight')
    expect(newtonMetres('5.5.5')).toBe('5.5.5')
    expect(newtonMetres('')).toBeNull()
    expect(newtonMetres(null)).toBeNull()
  })

  it('is shown in both units', () => {
    expect(torqueText(70)).toBe('70 N·m (52 lbf·ft)')
  })
})
