import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'

import type { Action, BlockView, NeedView, State } from '@/api/generated'
import { unit } from '@/shared/state/preferences'

import BlockNeeds from './BlockNeeds.vue'
import HoleNeeds from './HoleNeeds.vue'

const need = (action: Action, more: Partial<NeedView> = {}): NeedView => ({
  action,
  sentence: { text: 'Cut to {D}', terms: [{ symbol: 'D', value: 8.898e-3, kind: 'size', note: '' }] },
  detail: { text: '', terms: [] },
  hours: [],
  liner_mark: '',
  quantity: null,
  part: '',
  operation: 'Cut counterbores',
  ...more,
})

describe('what a hole needs', () => {
  it('is one sentence with its number, the operation it belongs to, and one button', async () => {
    unit.value = 'µm'
    const view = mount(HoleNeeds, { props: { number: 5, need: need('cut') } })
    expect(view.text()).toContain('What hole 5 needs · Cut counterbores')
    expect(view.text()).toContain('Cut to 8.898')
    const [act, why] = view.findAll('button')
    expect(act?.text()).toBe('Plan the cut')
    await act?.trigger('click')
    await why?.trigger('click')
    expect([view.emitted('act'), view.emitted('why')].map((one) => one?.length)).toEqual([1, 1])
  })

  it('has no button where nothing is needed, and no operation', () => {
    const view = mount(HoleNeeds, { props: { number: 1, need: need('nothing', { operation: '' }) } })
    expect(view.findAll('button').map((one) => one.text())).toEqual(['Why'])
    expect(view.text()).not.toContain('·')
  })

  it('has a verb of its own for everything that can be needed', () => {
    const actions: Action[] = [
      'read',
      'read depth',
      'read flange',
      'read survey',
      'fit',
      'cut',
      'explain',
      'route',
    ]
    const verbs = actions.map((action) =>
      mount(HoleNeeds, { props: { number: 1, need: need(action) } })
        .find('button')
        .text(),
    )
    expect(new Set(verbs).size).toBe(actions.length)
    expect(verbs.every((verb) => verb !== '')).toBe(true)
  })
})

describe('what a block needs', () => {
  const sentence = (text: string) => ({ text, terms: [] })
  const block = (states: State[], needs: BlockView['needs']) =>
    ({ holes: states.map((state, at) => ({ number: at + 1, state })), needs }) as unknown as BlockView

  it('stands operation after operation, and leads to each hole', async () => {
    const needs = [
      {
        operation: 'Measure as found',
        holes: [{ hole: 2, state: 'not measured' as State, sentence: sentence('Read 6h') }],
      },
      {
        operation: 'Seat proved',
        holes: [{ hole: 1, state: 'read again' as State, sentence: sentence('Read it again') }],
      },
    ]
    const view = mount(BlockNeeds, { props: { block: block(['read again', 'not measured'], needs) } })
    expect(view.findAll('h3').map((one) => one.text())).toEqual(['Measure as found', 'Seat proved'])
    expect(view.findAll('[role="img"]').map((one) => one.attributes('aria-label'))).toEqual([
      'not measured',
      'read again',
    ])
    await view.findAll('button')[1]?.trigger('click')
    expect(view.emitted('choose')).toEqual([[1]])
  })

  it('says so when every hole is in', () => {
    expect(mount(BlockNeeds, { props: { block: block(['in', 'in'], []) } }).text()).toContain(
      'every hole is in',
    )
    expect(mount(BlockNeeds, { props: { block: block(['in', 'out'], []) } }).text()).not.toContain(
      'every hole',
    )
  })
})
