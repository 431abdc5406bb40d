import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, CausesView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, settled } from '@/testing/server'

import CausesPage from './CausesPage.vue'
import { headline, holesText, share } from './words'

const hole = (number: number, um: number, adds_up: boolean) => ({
  hole: number,
  liner: `L${number}`,
  make: 'Pellerby',
  residual: { value_m: um * 1e-6, expanded_m: 7e-6 },
  adds_up,
})
const VIEW: CausesView = {
  why_not: '',
  holes: [hole(1, 1, true), hole(2, -92, false), hole(3, -94, false)],
  far_off: 26.2,
  explained: [
    {
      causes: ['lip under the micrometer'],
      where: [[2, 3]],
      effects_m: [-93e-6],
      shows: 'the flange was read too thick',
      weight: 0.8,
    },
    {
      causes: ['nothing but scatter'],
      where: [[]],
      effects_m: [0],
      shows: 'no more than scatter',
      weight: 0.2,
    },
  ],
  proposed: {
    name: 'read the flange on its flat land',
    tools: 'micrometer with a fine anvil',
    minutes: 4,
    where: [2, 3],
    bits: 0.7,
    expected_m: -93e-6,
    if_found: [0.99, 0.01],
    if_not: [0.001, 0.999],
  },
  missing: ['hole 4: its protrusion is not read'],
}
const PATH = '/api/jobs/j/causes/try'

describe('what does not add up', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    localStorage.clear()
    server = aroundPage()
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (view: object) => {
    server.answer(PATH, { body: view })
    page = await mountPage(
      CausesPage,
      {},
      { job: { name: 'Ferry' } } as unknown as BlockView,
      '/jobs/j/adds-up',
    )
    return page.view
  }

  it('says which holes, what may be behind them, and which check tells most', async () => {
    const view = await open(VIEW)
    expect(view.text()).toContain('Holes 2, 3 stand 3.7 thou lower than their parts say')
    expect(view.findAll('svg circle')).toHaveLength(3)
    const row = view.find('tbody tr')
    expect(row.text()).toContain('lip under the micrometer')
    expect(row.text()).toContain('0.80')
    expect(row.text()).toContain('0.99')
    expect(view.text()).toContain('Read the flange on its flat land: 4 min')
    expect(view.text()).toContain('Left out: hole 4')
  })

  it('weighs anew with what a check reads, refuses what is no number, and takes it back', async () => {
    const view = await open(VIEW)
    const field = view.find('form input')
    await field.setValue('much')
    expect(view.find('[role=alert]').text()).toContain('Type a number')
    await field.setValue('-3,7')
    await view.find('form').trigger('submit')
    await settled()
    const sent = server.asked.filter((one) => one.path === PATH).at(-1)
    expect(sent?.body).toMatchObject({
      findings: [{ check: 'read the flange on its flat land', where: [2, 3] }],
    })
    expect(view.find('[aria-label="Tried here"]').text()).toContain('nothing of it is on record')
    await view.find('[aria-label="Tried here"] button').trigger('click')
    await settled()
    expect(server.asked.filter((one) => one.path === PATH).at(-1)?.body).toMatchObject({ findings: [] })
  })

  it('says when everything adds up, and why there is nothing to see', async () => {
    const view = await open({ ...VIEW, explained: [], proposed: null, far_off: 1.2 })
    expect(view.text()).toContain('Everything adds up')
    page.view.unmount()
    expect((await open({ ...VIEW, why_not: 'No parts.' })).text()).toContain('No parts.')
  })
})

it('has words for one hole, for none by itself, and for small shares', () => {
  const small = (metres: number) => `${Math.round(metres * 1e6)} µm`
  expect(headline({ ...VIEW, holes: [hole(3, 60, false)] }, small)).toBe(
    'Hole 3 stands 60 µm higher than its parts say',
  )
  expect(headline({ ...VIEW, holes: [hole(3, 6, true)] }, small)).toContain('No hole by itself')
  expect(holesText([])).toBe('')
  expect([share(0), share(0.001), share(0.5)]).toEqual(['0', '<0.01', '0.50'])
})
