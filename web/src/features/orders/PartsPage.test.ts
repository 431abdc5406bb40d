import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import PartsPage from './PartsPage.vue'

const need = (name: string, more: object = {}) => ({
  name,
  count: 6,
  kind: 'part',
  why: 'fit the liner',
  spares: 0,
  sure: true,
  ...more,
})
const order = (what: string, more: object = {}) => ({
  order_id: `o-${what}`,
  what,
  count: 1,
  kind: 'part',
  whom: 'Hollin & Daw',
  words: '',
  state: 'on order',
  is_awaited: true,
  due: '2026-12-01',
  first_due: '2026-12-01',
  wanted_m: null,
  off_m: null,
  can_be: ['said to come', 'in', 'called off'],
  ...more,
})
const ORDERS = '/api/jobs/j/orders'

describe('parts and orders', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
    server.answer('/api/jobs/j/money', {
      body: {
        needed: [need('Liner'), need('Seal', { spares: 2, sure: false }), need('Bar', { kind: 'tool' })],
      },
    })
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (orders: object[]) => {
    server.answer(ORDERS, { body: orders })
    page = await mountPage(PartsPage, {}, { job: { name: 'Ferry' } } as never, '/jobs/j/parts')
    return page.view
  }
  const posted = () => server.asked.filter((one) => one.method === 'POST')
  const field = (label: string) => {
    const found = page.view.findAll('label').find((one) => one.text().startsWith(label))
    return page.view.get(`#${found?.attributes('for') ?? 'none'}`)
  }

  it('counts what is not on order yet, without tools, and says what is late', async () => {
    const view = await open([order('Liner', { state: 'late' })])
    expect(view.get('p.text-lg').text()).toContain('1 of 2')
    expect(view.get('p.text-lg').text()).toContain('1 late')
    const rows = view.findAll('[aria-labelledby=needed] li').map((one) => one.text())
    expect(rows[0]).toContain('ordered')
    expect(rows[1]).toContain('2 spare; may not be needed')
    expect(rows[2]).toContain('tool')
  })

  it('counts what was called off as not ordered', async () => {
    const view = await open([order('Liner', { state: 'called off', is_awaited: false })])
    expect(view.get('p.text-lg').text()).toContain('2 of 2')
  })

  it('orders what it needs, as many as it needs, at its price with a comma', async () => {
    const view = await open([])
    await view.get('button[aria-label="Order Liner"]').trigger('click')
    expect((field('How many').element as HTMLInputElement).value).toBe('6')
    await field('Price').setValue('88,50')
    await field('From or to whom').setValue('Hollin & Daw')
    server.answer(ORDERS, { status: 201, body: [] })
    await view.get('form[aria-labelledby=new-order]').trigger('submit')
    await settled()
    expect(posted()[0]?.body).toMatchObject({
      what: 'Liner',
      count: 6,
      kind: 'part',
      key: 'part: liner',
      price: '88.50',
      due: null,
      confirmed: false,
      person_id: 'w',
    })
    expect((field('What').element as HTMLInputElement).value).toBe('')
  })

  it('keeps an order that is asked about as it was typed, and sends it again when it is meant', async () => {
    const view = await open([])
    await field('What').setValue('Liner')
    await field('Size ordered').setValue('4.5')
    const asks = {
      ...refusalBody('slip', 'Is 4.5 mm meant?'),
      suggestions: [{ label: 'As typed', text: '', confirm: true }],
    }
    server.answer(ORDERS, { status: 422, body: asks }, { status: 201, body: [] })
    await view.get('form[aria-labelledby=new-order]').trigger('submit')
    await settled()
    expect((field('Size ordered').element as HTMLInputElement).value).toBe('4.5')
    const sure = view
      .findAll('form[aria-labelledby=new-order] button')
      .find((one) => one.text() === 'As typed')
    await sure?.trigger('click')
    await settled()
    expect(posted().map((one) => (one.body as { confirmed: boolean }).confirmed)).toEqual([false, true])
  })

  it('asks of a loan when it goes back and in what condition, and for no size', async () => {
    const view = await open([])
    await view.get('form[aria-labelledby=new-order] select').setValue('loan')
    expect(view.text()).toContain('Goes back on')
    expect(view.text()).toContain('In what condition')
    expect(view.text()).not.toContain('Size ordered')
  })

  it('says what became of an order: what it was measured at, by how much it is off', async () => {
    const off = order('Piston', {
      wanted_m: 0.1,
      off_m: 25.4e-6,
      state: 'in, not as ordered',
      is_awaited: false,
      can_be: ['measured', 'back'],
    })
    const view = await open([off])
    const row = view.get('article[aria-label=Piston]')
    expect(row.text()).toContain('+1.0 thou from what was ordered')
    await row.get('button').trigger('click')
    expect(row.get('form').text()).toContain('Measured (bare: mm)')
    await field('Measured').setValue('100.02')
    server.answer(`${ORDERS}/o-Piston/moves`, { status: 201, body: {} })
    await row.get('form').trigger('submit')
    await settled()
    expect(posted()[0]?.body).toMatchObject({ kind: 'measured', measured: '100.02', paid: null })
    expect(view.find('article[aria-label=Piston] form').exists()).toBe(false)
  })

  it('offers no measuring where no size was ordered, and says what was promised first', async () => {
    const view = await open([order('Seal', { first_due: '2026-11-25', can_be: ['measured', 'in'] })])
    const row = view.get('article[aria-label=Seal]')
    expect(row.text()).toContain('first said 2026-11-25')
    await row.get('button').trigger('click')
    expect(row.findAll('option').map((one) => one.text())).toEqual(['in'])
    expect(row.get('form').text()).toContain('Paid')
  })
})
