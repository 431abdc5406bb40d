import { describe, expect, it } from 'vitest'

import { torqueText, warmthText } from './others'

describe('temperatures in both scales', () => {
  // Fixed points: water freezes at 32 °F, boils at 212 °F; both scales meet at −40.
  it.each([
    [0, '0 °C (32 °F)'],
    ['100', '100 °C (212 °F)'],
    [-40, '-40 °C (-40 °F)'],
    ['20.0', '20 °C (68 °F)'],
  ])('%s', (celsius, words) => expect(warmthText(celsius)).toBe(words))
})

describe('torques in both units', () => {
  // From memory of workshop tables: 30 lbf·ft is 40.7 N·m, 100 lbf·ft is 135.6 N·m.
  it.each([
    [40.7, '40.7 N·m (30 lbf·ft)'],
    ['135.6', '135.6 N·m (100 lbf·ft)'],
  ])('%s', (torque, words) => expect(torqueText(torque)).toBe(words))
})
