import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'

import type { OfferView } from '@/api/generated'
import { unit } from '@/shared/state/preferences'

import DialPicture from './DialPicture.vue'
import DropPicture from './DropPicture.vue'
import FactsPicture from './FactsPicture.vue'
import MoveForm from './MoveForm.vue'
import { axisOver, type DialShown, handAt, type PictureOf, ringPath, shownAt, unitOf } from './pictures'
import ScoreTable from './ScoreTable.vue'
import SkillRows from './SkillRows.vue'

const DIAL: DialShown = {
  kind: 'dial',
  title: 'middle, axis 45°',
  division_m: 10e-6,
  per_turn: 100,
  number_each: 10,
  number_step: 10,
  unit: '0.01 mm',
  value_m: 0,
  inner: false,
  rock: { from_deg: -1, step_deg: 1, values_m: [30e-6, 10e-6, 20e-6] },
  marks: [],
  note: '',
}

describe('what pictures share', () => {
  it('turns the hand a whole turn for a whole turn of divisions', () => {
    expect(handAt(DIAL, 1000e-6)).toBeCloseTo(360)
    expect(handAt(DIAL, -250e-6)).toBeCloseTo(-90)
  })

  it('goes straight between the steps that came with a rock, and stops at its ends', () => {
    const rock = DIAL.rock
    if (!rock) throw new Error('no rock')
    expect(shownAt(rock, -0.5)).toBeCloseTo(20e-6)
    expect(shownAt(rock, 0.25)).toBeCloseTo(12.5e-6)
    expect(shownAt(rock, -4)).toBeCloseTo(30e-6)
    expect(shownAt(rock, 4)).toBeCloseTo(20e-6)
  })

  it('says a thou and a micrometre of the same axis', () => {
    expect(unitOf('small', 'thou')).toEqual({ one: 25.4e-6, name: 'thou' })
    expect(unitOf('size', 'µm')).toEqual({ one: 1e-3, name: 'mm' })
    expect(unitOf('force', 'µm').name).toBe('kN')
    const axis = axisOver([0, 100e-6], 'small', 'µm')
    expect(axis.ticks.map((tick) => tick.words)).toContain('100')
    expect(axis.low).toBeLessThan(0)
  })

  it('draws a round bore as a circle', () => {
    const points = ringPath([0, 0, 0, 20], 100, 1).slice(1, -1).split('L')
    const radii = points.map((point) => Math.hypot(...point.split(' ').map(Number)))
    expect(radii.map((one) => Math.round(one))).toEqual([100, 100, 100, 120])
  })
})

describe('dial', () => {
  it('numbers both ways from nought, or round and round with turns counted', () => {
    const both = mount(DialPicture, { props: { dial: DIAL, value: 0 } }).findAll('text.font-mono')
    expect(both.map((one) => one.text())).toEqual(['0', '10', '20', '30', '40', '50', '40', '30', '20', '10'])
    const round = mount(DialPicture, { props: { dial: { ...DIAL, inner: true }, value: 0 } })
    expect(
      round
        .findAll('text.font-mono')
        .map((one) => one.text())
        .at(-1),
    ).toBe('90')
  })

  it('says when the hand is past a whole turn', () => {
    const past = mount(DialPicture, { props: { dial: DIAL, value: 1200e-6 } })
    expect(past.text()).toContain('past a whole turn, +1')
    const turned = past.get('g[transform]').attributes('transform') ?? ''
    expect(parseFloat(turned.slice(7))).toBeCloseTo(432)
  })
})

describe('a call', () => {
  const sheet: PictureOf<'facts'> = { kind: 'facts', title: 'Heard', rows: [], say: 'seven tenths' }

  it('is read where the machine has no voice', () => {
    const view = mount(FactsPicture, { props: { sheet } })
    expect(view.get('q').text()).toBe('seven tenths')
    expect(view.find('button').exists()).toBe(false)
  })

  it('is heard where it has one of its own, and read when that is asked for', async () => {
    const spoken: string[] = []
    vi.stubGlobal('speechSynthesis', {
      getVoices: () => [{ localService: true, lang: 'en' }],
      cancel: () => undefined,
      speak: (words: { text: string }) => spoken.push(words.text),
    })
    vi.stubGlobal(
      'SpeechSynthesisUtterance',
      class {
        constructor(readonly text: string) {}
      },
    )
    const view = mount(FactsPicture, { props: { sheet } })
    expect(view.find('q').exists()).toBe(false)
    await view.findAll('button')[0]?.trigger('click')
    expect(spoken).toEqual(['seven tenths'])
    await view.findAll('button')[1]?.trigger('click')
    expect(view.get('q').text()).toBe('seven tenths')
    vi.unstubAllGlobals()
  })
})

describe('drop', () => {
  const drop: PictureOf<'drop'> = {
    kind: 'drop',
    title: 'Room',
    times_s: [0, 100],
    clear_m: [100e-6, 0],
    from_s: 20,
    rate: 12,
    runs: true,
    entered: 0,
    block: 'from 100 °C',
    liner: 'from -18 °C',
    tilt_deg: 0,
  }

  it('says what room is left at this second of the clock', () => {
    unit.value = 'µm'
    const at = (seconds: number) => mount(DropPicture, { props: { drop, seconds } }).get('.text-3xl').text()
    expect(at(20)).toContain('+100')
    expect(at(70)).toContain('+50')
    expect(at(500)).toContain('0')
  })
})

const OFFER: OfferView = {
  name: 'answer',
  label: 'That is it',
  words: '',
  caution: 'It bites.',
  last: true,
  fields: [
    { name: 'far', label: 'Far', kind: 'length', choices: [], unit: '', usual: '' },
    { name: 'way', label: 'Way', kind: 'choice', choices: ['left', 'right'], unit: '', usual: 'left' },
  ],
}

describe('a move', () => {
  it('keeps what was typed until it is taken, and asks for a choice that ends it', async () => {
    const form = mount(MoveForm, { props: { offer: OFFER, busy: false, moves: 2 } })
    expect(form.text()).toContain('Local rules and licensed practice come first.')
    expect(form.get('select').element.value).toBe('')
    await form.get('input').setValue('3 thou')
    await form.get('select').setValue('right')
    await form.trigger('submit')
    expect(form.emitted('make')).toEqual([['answer', { far: '3 thou', way: 'right' }]])
    expect(form.get('input').element.value).toBe('3 thou')
    await form.setProps({ moves: 3 })
    expect(form.get('input').element.value).toBe('')
  })

  it('drops a choice that is offered no longer', async () => {
    const form = mount(MoveForm, { props: { offer: { ...OFFER, last: false }, busy: false, moves: 0 } })
    await form.get('select').setValue('right')
    const fields = OFFER.fields.map((field) =>
      field.kind === 'choice' ? { ...field, choices: ['left', 'up'] } : field,
    )
    await form.setProps({ offer: { ...OFFER, last: false, fields } })
    expect(form.get('select').element.value).toBe('left')
  })
})

describe('what it was worth', () => {
  const phrase = (text: string) => ({ text, terms: [] })

  it('marks the lines that lost points by shape', () => {
    const row = (name: string, points: number) => ({
      skill: name,
      name,
      yours: phrase('yes'),
      truth: phrase('yes'),
      off: phrase(''),
      at_most: phrase(''),
      points,
      of: 10,
    })
    const judged = { headline: phrase(''), points: 10, of: 20, traps: [], pictures: [], steps: [], words: [] }
    const table = mount(ScoreTable, { props: { judged: { ...judged, scored: [row('a', 10), row('b', 0)] } } })
    expect(table.text()).toContain('10 of 20')
    expect(table.findAll('svg').map((gate) => gate.attributes('aria-label'))).toEqual(['in', 'out'])
  })

  it('says of a skill how many were right and whether it is sure', () => {
    const rows = mount(SkillRows, {
      props: {
        skills: [
          { name: 'zero', last: [false, true, true, true], is_sure: true },
          { name: 'taper', last: [], is_sure: false },
        ],
      },
    })
    expect(rows.get('[role="img"][aria-label^="3 of 4"]').attributes('aria-label')).toBe('3 of 4 right, sure')
    expect(rows.text()).toContain('not tried')
  })
})
