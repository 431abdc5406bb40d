import { describe, expect, it } from 'vitest'

import type { DeckingView, HoleConversionView, RuleView } from '@/api/generated'

import { labelsOf, windowText } from './labels'

const rule = (value_m: number, state = 'in', more: object = {}): RuleView =>
  ({
    value_m,
    expanded_m: 2.54e-6,
    least_m: 50.8e-6,
    greatest_m: 101.6e-6,
    state,
    ...more,
  }) as unknown as RuleView
const NOTHING = { ring: null, proud: null, insert: null, register_line: null, seals: [], relief: null }
const of = (more: object, decking: DeckingView | null = null) =>
  labelsOf({ ...NOTHING, ...more } as unknown as HoleConversionView, decking, 'thou')

describe('what is written beside the section of a conversion', () => {
  it('says a window by both ends, by one, or that there is none', () => {
    expect(windowText(25.4e-6, 50.8e-6, 'thou')).toBe('1.0 to 2.0')
    expect(windowText(null, 50.8e-6, 'thou')).toBe('at most 2.0')
    expect(windowText(25.4e-6, null, 'thou')).toBe('at least 1.0')
    expect(windowText(null, null, 'thou')).toBe('no limit on the card')
  })

  it('has a line for each part of the card and for no other', () => {
    expect(of({})).toEqual([])
    const all = of({
      ring: { crush: null, height_m: 1e-3, known_by: '' },
      proud: { rules: [], reason: 'its liner is not read', state: 'not measured' },
      insert: { levels: [], state: 'not measured' },
      register_line: { rule: null, hour: null, state: 'not measured' },
      seals: [{ name: 'upper', squeeze: null, against: [], material: 'rubber', grease: 'soap' }],
      relief: { towards: null, away: null, towards_hour: null },
    })
    expect(all.map((one) => one.part)).toEqual(['ring', 'proud', 'insert', 'register', 'seals', 'relief'])
    expect(all.map((one) => one.short)).toEqual(['crush', 'proud', 'insert', 'off line', 'upper', 'relief'])
    expect(new Set(all.map((one) => one.state))).toEqual(new Set(['not measured']))
  })

  it('gives a crush with its ± where the ring was measured, and bare where its height is the nominal one', () => {
    const [measured] = of({ ring: { crush: rule(76.2e-6), height_m: 1e-3, known_by: 'read' } })
    expect(measured?.value).toBe('3.0 ±0.1')
    expect(measured?.note).toBe('2.0 to 4.0; read')
    const [bare] = of({ ring: { crush: rule(76.2e-6), height_m: 0, known_by: 'by the card' } })
    expect(bare?.value).toBe('3.0')
  })

  it('says of an insert the level that decides', () => {
    const levels = [rule(76.2e-6), rule(127e-6, 'out')]
    const [insert] = of({ insert: { levels, state: 'out' } })
    expect(insert?.value).toBe('+5.0 ±0.1')
    expect(insert?.state).toBe('out')
  })

  it('tells a direction to the half hour it can be told by, and none where none stands out', () => {
    const [line] = of({ register_line: { rule: rule(76.2e-6), hour: 0.1, state: 'in' } })
    expect(line?.note).toContain('towards 12h')
    const [later] = of({ register_line: { rule: rule(76.2e-6), hour: 4.6, state: 'in' } })
    expect(later?.note).toContain('towards 4.5h')
    const [even] = of({ register_line: { rule: rule(76.2e-6), hour: null, state: 'in' } })
    expect(even?.note).toContain('no direction stands out')
  })

  it('cannot tell of a seal that something speaks against', () => {
    const seal = { name: 'upper', squeeze: 0.213, material: 'rubber', grease: 'soap' }
    const [well] = of({ seals: [{ ...seal, against: [] }] })
    expect([well?.value, well?.note, well?.state]).toEqual(['squeezed 21 %', 'rubber, soap', 'in'])
    const [doubted] = of({ seals: [{ ...seal, against: ['a flash in the groove'] }] })
    expect([doubted?.note, doubted?.state]).toEqual(['a flash in the groove', 'cannot tell'])
  })

  it('says which side the rod needs room on, and by how much it clears where it needs none', () => {
    const side = (deep_m: number, clear_m = 0.0508) => ({ deep_m, high_m: 0.0254, clear_m })
    const [needed] = of({ relief: { towards: side(0.00254), away: side(0), towards_hour: 3 } })
    expect(needed?.value).toContain('0.100 deep, 1.000 high')
    expect(needed?.note).toBe('inch, at 3h only')
    expect(needed?.state).toBeNull()
    const [none] = of({ relief: { towards: side(0), away: side(0, 0.0254), towards_hour: null } })
    expect([none?.value, none?.state]).toEqual(['none', 'in'])
    expect(none?.note).toContain('1.000 inch')
  })

  it('leaves out how proud it stands once the deck was cut', () => {
    const proud = { rules: [rule(0), rule(76.2e-6)], reason: 'four positions', state: 'in' }
    expect(of({ proud })[0]?.value).toBe('3.0 ±0.1')
    expect(of({ proud }, { decked_at: '2026-11-20T10:00:00Z' } as unknown as DeckingView)).toEqual([])
  })
})
