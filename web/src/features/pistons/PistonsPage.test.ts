import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, MatchRowView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import PistonsPage from './PistonsPage.vue'
import { scaleOf } from './scale'

const stated = (value_m: number, expanded_m = 5e-6) => ({ value_m, expanded_m })
const ROW = {
  hole: 1,
  state: 'not measured',
  bore: stated(0.1001),
  skirt: stated(0.1),
  crown_less_m: 3e-4,
  least_m: 80e-6,
  greatest_m: 120e-6,
  by_sizes: { stated: stated(100e-6), state: 'in' },
  by_feeler: { stated: stated(101.6e-6, 8e-6), state: 'in' },
  method: 'feeler, piston against the other wall',
  apart: stated(1.6e-6, 9e-6),
  agree: true,
  match: null as object | null,
  unfrozen: '',
  passed: false,
  gaps: null,
  says: [],
}
const block = { job: { name: 'Twin' }, holes: [], liners: [] } as unknown as BlockView
const SHEET = '/api/jobs/j/pistons'
const MATCHES = '/api/jobs/j/pistons/1/matches'

describe('the match sheet', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (row: object = ROW) => {
    server.answer(SHEET, { body: { rows: [row] } })
    page = await mountPage(PistonsPage, {}, block)
    return page.view
  }

  it('shows both methods beside each other, and that they agree', async () => {
    const text = (await open()).find('[aria-label="Hole 1"]').text()
    expect(text).toContain('3.9 ±0.2')
    expect(text).toContain('4.0 ±0.4')
    expect(text).toContain('they agree')
    expect(text).toContain('not marked yet')
    expect(text).toContain('crown 11.8 smaller than the skirt')
  })

  it('says that methods apart are beyond their joint uncertainty', async () => {
    const view = await open({ ...ROW, agree: false, apart: stated(-20e-6, 9e-6), state: 'cannot tell' })
    expect(view.text()).toContain('0.8 apart, beyond ±0.4')
  })

  it('orders a piston to the bore as it was read, with what is agreed on the page for its maker', async () => {
    const said = (text: string) => ({ text, terms: [] })
    const line = { material: 'aluminium', says: [said('It leaves enough.')], why_not: null }
    server.answer('/api/jobs/j/pistons/1/order', {
      body: {
        hole: 1,
        weeks: 8,
        ordered: [
          { ...line, what: 'piston', least_m: 0.1, greatest_m: 0.10001 },
          { ...line, what: 'rings', least_m: null, greatest_m: null, why_not: said('Read it first.') },
        ],
      },
    })
    const view = await open()
    await view
      .findAll('button')
      .find((one) => one.text() === 'Order to its size')
      ?.trigger('click')
    await settled()
    const order = view.find('[aria-label="To order for hole 1"]')
    expect(order.text()).toContain('3.9370 to 3.9374 inch')
    expect(order.text()).toContain('no size yet')
    expect(order.text()).toContain('8 weeks')
    await order.find('[data-path="pin"] input, input[name="pin"], input').setValue('2 off')
    expect(order.find('a').attributes('href')).toContain('count=2+off')
  })

  it('keeps what is typed where it is refused, then shows the mark', async () => {
    const view = await open()
    await view
      .findAll('button')
      .find((one) => one.text() === 'Mark it')
      ?.trigger('click')
    const problem = { field: 'faces', message: 'Say which way it faces.' }
    const refused = { ...refusalBody('invalid', problem.message), problems: [problem] }
    const match = {
      mark: '1F',
      faces: 'front',
      run: 'new',
      pin: 'held by clips',
      words: '',
      matched_by: 'Wren',
    }
    server.answer(
      MATCHES,
      { status: 422, body: refused },
      { body: { rows: [{ ...ROW, state: 'in', match }] } },
    )
    const form = view.find('form')
    await form.findAll('input')[0]?.setValue('1F')
    await form.trigger('submit')
    await settled()
    expect(form.text()).toContain('Say which way it faces.')
    expect(form.findAll('input')[0]?.element.value).toBe('1F')
    await form.findAll('input')[1]?.setValue('front')
    await form.trigger('submit')
    await settled()
    expect(view.text()).toContain('faces front')
    expect(server.asked.at(-1)?.body).toMatchObject({ mark: '1F', faces: 'front', person_id: 'w' })
  })

  it('says why ring gaps are not read yet', async () => {
    const view = await open({ ...ROW, unfrozen: 'hole 1 may still be bored or honed: not done yet' })
    expect(view.text()).toContain('Not before the bore is frozen: hole 1 may still be bored or honed')
  })
})

describe('the scale', () => {
  it('holds limits and both methods with their uncertainty', () => {
    const scale = scaleOf([ROW as unknown as MatchRowView])
    expect(scale.from).toBeLessThan(80e-6)
    expect(scale.to).toBeGreaterThan(120e-6)
    expect(scale.x(scale.from)).toBe(0)
    expect(scale.x(scale.to)).toBeCloseTo(100)
    expect(scaleOf([]).to).toBeGreaterThan(0)
  })
})
