import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, CausesView, HoleOffView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import CasesPage from './CasesPage.vue'
import CausesPage from './CausesPage.vue'
import KnownCausesPage from './KnownCausesPage.vue'
import { endsOf, stemsOf, ticksOf } from './stems'
import { effectText, headline, holesText, hourText, share } from './words'

const value = (um: number, u = 7) => ({ value_m: um * 1e-6, expanded_m: u * 1e-6 })
const hole = (number: number, um: number, adds_up: boolean) =>
  ({
    hole: number,
    liner: `L${number}`,
    make: 'Pellerby',
    middle: value(um),
    spots: ['12 h', '3 h', '6 h', '9 h'].map((name) => ({ name, off: value(um, 9) })),
    adds_up,
  }) as unknown as HoleOffView
const VIEW = {
  matter: 'heights',
  why_not: '',
  holes: [hole(1, 1, true), hole(2, -92, false), hole(3, -94, false)],
  far_off: 26.2,
  hold: 'nothing was looked at yet: read a flange',
  explained: [
    {
      causes: ['lip under the micrometer'],
      where: [[2, 3]],
      effects_m: [-93e-6],
      high_sides_deg: [null],
      words: [''],
      shows: 'the flange was read too thick',
      weight: 0.7,
      looks_m: [0, 0, 0, 0, ...Array<number>(8).fill(-93e-6)],
    },
    {
      causes: ['nothing but scatter'],
      where: [[]],
      effects_m: [0],
      high_sides_deg: [null],
      words: [''],
      shows: 'no more than scatter',
      weight: 0.3,
      looks_m: Array<number>(12).fill(0),
    },
  ],
  checks: [
    {
      name: 'read a flange on its flat land',
      tools: 'micrometer with a fine anvil',
      minutes: 3,
      asks: 'What it reads now, less what was read before',
      at: 'a liner of that make on the bench',
      where: [2, 3],
      bits: 0.7,
      expected_m: -93e-6,
      if_found: [0.99, 0.01],
      if_not: [0.001, 0.999],
    },
    {
      name: 'draw the liner',
      tools: 'puller',
      minutes: 44,
      asks: 'What lay under it',
      at: 'a hole',
      where: [2],
      bits: 0.8,
      expected_m: -93e-6,
      if_found: [0.9, 0.1],
      if_not: [0.1, 0.9],
    },
  ],
  missing: ['hole 4: its protrusion is not read'],
  tried: [],
  cases: [],
  kept: '',
} as unknown as CausesView
const TRIED = {
  experiment_id: 'e',
  check: 'read a flange on its flat land',
  asks: 'What it reads now, less what was read before',
  holes: [2, 3],
  change: 'read a flange on its flat land, holes 2, 3',
  expected: '−3.7 thou if it is a lip, else 0',
  begun_at: '2026-01-02T03:04:00Z',
  begun_by: 'Wren',
  event: 9,
  value_m: null,
  typed: '',
  words: '',
  minutes: null,
  money: null,
  is_open: true,
  overtaken: '',
}
const CASE = {
  case_id: 'c',
  job_id: 'k',
  job: 'Sawmill Hauler',
  matter: 'heights',
  symptom: 'two low',
  false_leads: ['the zero looked at'],
  cause: 'lip under the micrometer',
  found_with: 'a flange read on its flat land',
  minutes: 7,
  words: 'fine anvil',
  kept_by: 'Ines',
  shape_um: [0, -93],
  alike: 0.93,
}
const PATH = '/api/jobs/j/causes'

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
  const open = async (...views: object[]) => {
    server.answer(PATH, ...views.map((body) => ({ body })))
    page = await mountPage(
      CausesPage,
      {},
      { job: { name: 'Ferry' } } as unknown as BlockView,
      '/jobs/j/adds-up',
    )
    return page.view
  }

  it('says which holes, what may be behind them, which check tells most, and what is held', async () => {
    const view = await open(VIEW)
    expect(view.text()).toContain('Holes 2, 3 stand 3.7 thou lower than their parts say')
    expect(view.text()).toContain('Hold: nothing was looked at yet')
    const row = view.find('tbody tr')
    expect(row.text()).toContain('lip under the micrometer')
    expect(row.text()).toContain('0.70')
    expect(row.text()).toContain('0.99')
    expect(view.text()).toContain('Read a flange on its flat land, holes 2, 3: 3 min')
    expect(view.text()).toContain('Left out: hole 4')
  })

  it('begins a check with what is expected, and another one where that is chosen', async () => {
    const view = await open(VIEW, VIEW, { ...VIEW, tried: [TRIED] })
    server.answer(`${PATH}/experiments`, { status: 201, body: {} })
    await view.find('details button').trigger('click')
    expect(view.text()).toContain('Draw the liner, hole 2: 44 min')
    expect(view.text()).toContain('pullers throw parts')
    const back = view.findAll('button').find((one) => one.text() === 'Back to the cheapest')
    await back?.trigger('click')
    const begin = view.findAll('button').find((one) => one.text() === 'Begin this check')
    await begin?.trigger('click')
    await settled()
    expect(server.asked.find((one) => one.path === `${PATH}/experiments`)?.body).toMatchObject({
      check: 'read a flange on its flat land',
      holes: [2, 3],
      expected: '−3.7 thou if it is lip under the micrometer, else 0',
    })
  })

  it('says at the check why it cannot be begun', async () => {
    const view = await open(VIEW)
    server.answer(`${PATH}/experiments`, 'away')
    await view
      .findAll('button')
      .find((one) => one.text() === 'Begin this check')
      ?.trigger('click')
    await settled()
    expect(view.find('[role=alert]').exists()).toBe(true)
    expect(view.text()).toContain('Begin this check')
  })

  it('writes down what came of it, and keeps what was typed where it is refused', async () => {
    const view = await open({ ...VIEW, tried: [TRIED] })
    expect(view.text()).toContain('Nothing else is changed meanwhile')
    server.answer(`${PATH}/experiments/e`, {
      status: 422,
      body: {
        ...refusalBody('wrong', 'Type what it read.'),
        problems: [{ field: 'value', message: 'Type what it read.' }],
      },
    })
    const fields = view.findAll('form[aria-label="What came of it"] input')
    await fields[0]?.setValue('-3.6')
    await fields[2]?.setValue('4')
    await view.find('form[aria-label="What came of it"]').trigger('submit')
    await settled()
    expect(view.text()).toContain('Type what it read.')
    expect((fields[0]?.element as HTMLInputElement).value).toBe('-3.6')
    expect(server.asked.find((one) => one.path === `${PATH}/experiments/e`)?.body).toMatchObject({
      value: '-3.6',
      minutes: 4,
      money: null,
    })
  })

  it('keeps a case once it is settled, and shows those that lie alike', async () => {
    const done = { ...TRIED, is_open: false, value_m: -93e-6, minutes: 4, overtaken: '' }
    const sure = { ...VIEW.explained[0], weight: 0.95 }
    const view = await open({
      ...VIEW,
      hold: '',
      tried: [done],
      explained: [sure, VIEW.explained[1]],
      cases: [CASE],
    })
    server.answer(`${PATH}/cases`, { status: 201, body: {} })
    expect(view.text()).toContain('lies like this one: 0.93')
    expect(view.text()).toContain('−3.7 thou')
    server.answer(PATH, {
      body: { ...VIEW, hold: '', tried: [done], explained: [sure], kept: 'lip under the micrometer' },
    })
    await view.find('form[aria-label="Keep it as a case"]').trigger('submit')
    await settled()
    expect(view.text()).toContain('Kept as a case: lip under the micrometer')
    expect(view.find('form[aria-label="Keep it as a case"]').exists()).toBe(false)
    expect(server.asked.find((one) => one.path === `${PATH}/cases`)?.body).toMatchObject({
      cause: 'lip under the micrometer',
      matter: 'heights',
    })
  })

  it('puts a change of one\u2019s own on record before it is made', async () => {
    const view = await open(VIEW)
    server.answer(`${PATH}/experiments`, {
      status: 422,
      body: {
        ...refusalBody('wrong', 'Say what you expect.'),
        problems: [{ field: 'expected', message: 'Say what you expect.' }],
      },
    })
    await view
      .findAll('button')
      .find((one) => one.text().startsWith('Something else'))
      ?.trigger('click')
    const form = view.find('section[aria-label="What was tried"] form')
    await form.findAll('input')[0]?.setValue('the other bridge')
    await form.trigger('submit')
    await settled()
    expect(view.text()).toContain('Say what you expect.')
    expect(server.asked.find((one) => one.path === `${PATH}/experiments`)?.body).toMatchObject({
      change: 'the other bridge',
      check: '',
      holes: [],
    })
  })

  it('looks at bores too, and says when everything adds up, and why there is nothing to see', async () => {
    const view = await open({ ...VIEW, explained: [], checks: [], hold: '', far_off: 1.2 })
    expect(view.text()).toContain('Everything adds up')
    await view.findAll('header button')[1]?.trigger('click')
    await settled()
    expect(view.findAll('header button')[1]?.attributes('aria-pressed')).toBe('true')
    expect(server.asked.filter((one) => one.path === PATH)).toHaveLength(2)
    page.view.unmount()
    expect((await open({ ...VIEW, why_not: 'No parts.' })).text()).toContain('No parts.')
  })
})

describe('cases and causes of the shop', () => {
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

  it('lists cases with their false leads', async () => {
    server.answer('/api/causes/cases', { body: [{ ...CASE, alike: null }] })
    page = await mountPage(CasesPage, {}, {}, '/shop/cases')
    expect(page.view.text()).toContain('Tried in vain: the zero looked at')
    expect(page.view.text()).not.toContain('lies like')
  })

  it('lists what is known and saves a cause and a check of its own, refused at the field', async () => {
    const known = {
      causes: [
        {
          name: 'nothing but scatter',
          shows: '',
          pattern: 'nowhere',
          low_m: 0,
          high_m: 0,
          prior: 0.4,
          own: false,
        },
        { name: 'paint', shows: 'low', pattern: 'one hole', low_m: -6e-5, high_m: 0, prior: 0.02, own: true },
      ],
      checks: [
        {
          name: 'scrape',
          tools: '',
          minutes: 3,
          asks: '',
          at: 'a hole',
          finds: ['paint'],
          standard_m: 2e-6,
          own: true,
        },
      ],
    }
    server.answer('/api/causes', { body: known })
    page = await mountPage(KnownCausesPage, {}, {}, '/shop/causes')
    expect(page.view.text()).toContain('our own')
    server.answer('/api/causes', {
      status: 422,
      body: {
        ...refusalBody('wrong', 'Give it a name.'),
        problems: [{ field: 'name', message: 'Give it a name.' }],
      },
    })
    const cause = page.view.find('form[aria-label="A cause of our own"]')
    await cause.trigger('submit')
    await settled()
    expect(cause.text()).toContain('Give it a name.')
    server.answer('/api/causes/checks', { status: 201, body: known })
    const check = page.view.find('form[aria-label="A check of our own"]')
    await check.findAll('select')[0]?.setValue('paint')
    await check.trigger('submit')
    await settled()
    expect(server.asked.find((one) => one.path === '/api/causes/checks')?.body).toMatchObject({
      finds: ['paint'],
      minutes: 10,
    })
  })
})

it('has words for one hole, for none by itself, for bores, sides and small shares', () => {
  const small = (metres: number) => `${Math.round(metres * 1e6)} µm`
  expect(headline({ ...VIEW, holes: [hole(3, 60, false)] }, small)).toBe(
    'Hole 3 stands 60 µm higher than its parts say',
  )
  expect(headline({ ...VIEW, holes: [hole(3, 6, true)] }, small)).toContain('No hole by itself')
  expect(headline({ ...VIEW, matter: 'bores', holes: [hole(3, 6, false)] }, small)).toContain('not round')
  expect(holesText([])).toBe('')
  expect([share(0), share(0.001), share(0.5)]).toEqual(['0', '<0.01', '0.50'])
  // 0° is the front, 9 h; 90° further round is 12 h; and round again.
  expect([0, 90, 180, 270, 359].map(hourText)).toEqual(['9 h', '12 h', '3 h', '6 h', '9 h'])
  const lean = { ...VIEW.explained[0], where: [[2]], effects_m: [3e-5], high_sides_deg: [90] }
  expect(effectText(lean as never, small, false)).toBe('30 µm, high at 12 h in hole 2')
})

it('lays stems side by side on one scale with round figures', () => {
  const stems = stemsOf(VIEW.holes, 300)
  expect(stems.map((one) => one.middle)).toEqual([50, 150, 250])
  expect(stems[0]?.stems).toHaveLength(4)
  expect(endsOf(stems).low).toBeCloseTo(-103e-6, 9)
  expect(ticksOf(-103e-6, 12e-6, 1e-6).map((one) => Math.round(one * 1e6))).toEqual([-100, -50, 0])
})
