import { expect, it } from 'vitest'

import { Refusal } from '@/api/ask'

import { amountAt } from './amounts'

it('reads an amount with either mark, and nothing as none', () => {
  expect([amountAt('x', '24,5'), amountAt('x', ' 68 '), amountAt('x', '0'), amountAt('x', ' ')]).toEqual([
    24.5,
    68,
    0,
    null,
  ])
})

it('refuses what is no amount at its field', () => {
  for (const text of ['much', '-1', '1e999']) {
    let refused: unknown
    try {
      amountAt('worth', text)
    } catch (error) {
      refused = error
    }
    expect(refused).toBeInstanceOf(Refusal)
    expect((refused as Refusal).at('worth')).toContain('type a number')
  }
})
