import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'

import { unit } from '@/shared/state/preferences'

import StepStrip from './StepStrip.vue'

const MADE = {
  nominal_m: 0.2032,
  over_m: 1.27e-3,
  finished_m: 0.20447,
  stock_m: 50e-6,
  bored_m: 0.20442,
  is_honed: true,
}

describe('a bore whose piston is made to it', () => {
  beforeEach(() => {
    unit.value = 'µm'
  })

  it('says the sum down to what the bar leaves for the hone', () => {
    const text = mount(StepStrip, { props: { made: MADE } }).text()
    expect(text).toContain('203.200')
    expect(text).toContain('1270')
    expect(text).toContain('left for the hone')
    expect(text).toContain('204.420')
  })

  it('ends at the finished size where a bored finish is enough', () => {
    const made = { ...MADE, is_honed: false, stock_m: 0, bored_m: 0.20447 }
    const text = mount(StepStrip, { props: { made } }).text()
    expect(text).not.toContain('left for the hone')
    expect(text).toContain('A bored finish is enough')
  })
})
