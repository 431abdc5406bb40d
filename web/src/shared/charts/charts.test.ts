import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'

import type { State } from '@/api/generated'

import LimitRing from './LimitRing.vue'
import StateGate from './StateGate.vue'

const STATES: State[] = ['in', 'out', 'cannot tell', 'not measured', 'read again']

/** Everything drawn, without colours: what somebody sees who cannot tell them apart. */
function shapes(html: string): string {
  return html.replace(/class="[^"]*"|aria-label="[^"]*"|data-v-\w+=""/g, '')
}

describe('state gate', () => {
  it('differs by shape from state to state, and says its state', () => {
    const drawn = STATES.map((state) => mount(StateGate, { props: { state } }))
    expect(new Set(drawn.map((gate) => shapes(gate.html()))).size).toBe(STATES.length)
    expect(drawn.map((gate) => gate.attributes('aria-label'))).toEqual(STATES)
  })

  it('leaves the gap open when nothing is measured', () => {
    const gate = mount(StateGate, { props: { state: 'not measured' } })
    expect(gate.findAll('circle')).toHaveLength(0)
    expect(gate.findAll('path')).toHaveLength(1)
  })
})

describe('limit ring', () => {
  const base = { number: 5, least: 50e-6, greatest: 125e-6 }
  const mark = (hour: number, value: number, state: State = 'in') => ({ hour, value, state })

  it('draws a mark for each reading and an outline through three or more', () => {
    const two = mount(LimitRing, { props: { ...base, marks: [mark(12, 90e-6), mark(6, 80e-6)] } })
    expect(two.findAll('[data-mark]')).toHaveLength(2)
    expect(two.find('polygon').exists()).toBe(false)
    const four = mount(LimitRing, {
      props: { ...base, marks: [12, 3, 6, 9].map((hour) => mark(hour, 90e-6)) },
    })
    expect(four.find('polygon').attributes('points')?.split(' ')).toHaveLength(4)
  })

  it('keeps a typed mark apart from those taken', () => {
    const ring = mount(LimitRing, {
      props: { ...base, marks: [mark(12, 90e-6), { ...mark(3, 80e-6, 'not measured'), preview: true }] },
    })
    expect(ring.findAll('[data-mark]')).toHaveLength(1)
    expect(ring.findAll('[data-preview]')).toHaveLength(1)
  })

  it('draws a circle for each limit the card sets', () => {
    const rings = [
      { least: 50e-6, greatest: 125e-6 },
      { least: 50e-6, greatest: null },
      { least: null, greatest: null },
    ].map((limits) => mount(LimitRing, { props: { number: 1, marks: [], ...limits } }))
    const limitCircles = rings.map((ring) =>
      ring.findAll('circle').filter((circle) => circle.classes('stroke-ink')),
    )
    expect(limitCircles.map((circles) => circles.length)).toEqual([2, 1, 0])
  })

  it('points outwards with an arrow when a reading lies beyond the drawing', () => {
    const far = mount(LimitRing, { props: { ...base, marks: [mark(3, 900e-6, 'out')] } })
    const near = mount(LimitRing, { props: { ...base, marks: [mark(3, 130e-6, 'out')] } })
    expect(far.findAll('[data-mark] path')).toHaveLength(2)
    expect(near.findAll('[data-mark] path')).toHaveLength(1)
  })
})
