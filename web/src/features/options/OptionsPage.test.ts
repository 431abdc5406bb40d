import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, OptionOfHole, OptionsView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, settled } from '@/testing/server'

import OptionsPage from './OptionsPage.vue'
import { moneyText, standText, summary, waitText } from './words'

const sized = (um: number, u = 6) => ({ value_m: um * 1e-6, expanded_m: u * 1e-6 })
const hole = (number: number, um: number, state: 'in' | 'out' | 'cannot tell' | null) => ({
  hole: number,
  value: sized(um),
  state,
  chance: 0.9,
  least_m: 50e-6,
  greatest_m: 125e-6,
})
const OPTION: OptionOfHole = {
  kind: 'leave it',
  detail: 'as it was read',
  why_not: '',
  holes: [hole(1, 80, 'in'), hole(2, 20, 'out')],
  chance: 0.01,
  out: 1,
  unsure: 0,
  heights: [
    { name: 'piston stand-out', now_m: 1e-3, after_m: 1e-3, least_m: 0.8e-3, greatest_m: null, keeps: true },
  ],
  compression: [16, 16.2],
  spent_m: 0,
  skim_m: 0,
  hours: 0,
  parts: 0,
  days: 0,
  money: 0,
  total: 0,
  worth_words: '',
  final: 'nothing',
}
const CUT: OptionOfHole = {
  ...OPTION,
  kind: 'cut and shim',
  detail: 'in 2',
  holes: [hole(1, 80, 'in'), hole(2, 100, null)],
  chance: 0.91,
  out: 0,
  hours: 1.8,
  parts: 24.5,
  money: 146.9,
  worth_words: '147 € of an engine worth 9,000 €: 2 %.',
}
const SKIM: OptionOfHole = {
  ...OPTION,
  kind: 'skim the deck',
  skim_m: 40e-6,
  hours: 5.5,
  days: 4,
  money: 374,
}
const BLOCK: OptionOfHole = {
  ...OPTION,
  kind: 'another block',
  holes: [],
  chance: null,
  why_not: 'Nothing is known.',
  hours: 18,
  money: null,
}
const VIEW: OptionsView = {
  why_no_options: '',
  land: 'flat land',
  other_lands: [{ land: 'lip', value: sized(69), state: 'in' }],
  hold: '',
  options: [OPTION, CUT, SKIM, BLOCK],
  suggested: 'cut and shim',
  rate: 68,
  currency: '€',
  chosen: null,
}

describe('what can be done about a hole', () => {
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
    server.answer('/api/jobs/j/options/2', (asked) =>
      asked.method === 'POST' ? { status: 201, body: { job_id: 'j' } } : { body: view },
    )
    page = await mountPage(
      OptionsPage,
      {},
      { job: { name: 'Ferry' } } as unknown as BlockView,
      '/jobs/j/options/x/2',
    )
    return page.view
  }

  it('lays the options side by side and decides the suggested one under a reason', async () => {
    const view = await open(VIEW)
    expect(view.text()).toContain('over the lip it would read')
    expect(view.text()).toContain('“in”')
    const heads = view.findAll('thead button').map((one) => one.text())
    expect(heads).toEqual(['Leave it', 'Cut and shim', 'Skim the deck', 'Another block'])
    expect(view.text()).toContain('91 % in, once read')
    expect(view.text()).toContain('1 out')
    const plate = view.find('[aria-label="To be decided"]')
    expect(plate.text()).toContain('Cut and shim: 91 % all in, for 147 €, 1.8 h, no waiting')
    expect(plate.text()).toContain('worth 9,000 €')
    const label = plate.findAll('label').find((one) => one.text() === 'Because')
    await plate.find(`#${label?.attributes('for') ?? ''}`).setValue('it sails on Friday')
    await plate.find('form').trigger('submit')
    await settled()
    const sent = server.asked.find((one) => one.method === 'POST')
    expect(sent?.body).toMatchObject({ option: 'cut and shim', reason: 'it sails on Friday', worth: null })
  })

  it('tells an amount that is none at its field, and asks nothing with it', async () => {
    const view = await open(VIEW)
    const plate = view.find('[aria-label="To be decided"]')
    const label = plate.findAll('label').find((one) => one.text().startsWith('The engine is worth'))
    const worth = plate.find(`#${label?.attributes('for') ?? ''}`)
    await worth.setValue('much')
    await settled()
    expect(plate.text()).toContain('“much” is no amount')
    await plate.find('form').trigger('submit')
    await settled()
    expect(server.asked.some((one) => one.method === 'POST')).toBe(false)
    await worth.setValue('9000')
    await settled()
    expect(plate.text()).not.toContain('no amount')
    expect(String((vi.mocked(fetch).mock.calls.at(-1)?.[0] as Request).url)).toContain('worth=9000')
  })

  it('takes the one that is picked instead, and shows what was decided with its way on', async () => {
    const chosen = {
      option: 'skim the deck',
      reason: 'wavy anyhow',
      worth: null,
      chosen_at: '2026-11-29T08:00:00Z',
      chosen_by: 'Ines',
    }
    const view = await open({ ...VIEW, chosen })
    await view.findAll('thead button')[2]?.trigger('click')
    expect(view.find('[aria-label="To be decided"] button').text()).toBe('Take: skim the deck')
    expect(view.text()).toContain('Decided: skim the deck')
    expect(view.findAll('a').some((one) => one.text() === 'Go there')).toBe(true)
  })

  it('holds what is final while something contradicts itself, and says what must be known first', async () => {
    const view = await open({ ...VIEW, hold: 'Its parts and its reading disagree.' })
    expect(view.find('[role=status]').text()).toContain('nothing is cut here until this is settled')
    page.view.unmount()
    const none = await open({ ...VIEW, options: [], why_no_options: 'Read the ledge first.', land: '' })
    expect(none.text()).toContain('Read the ledge first.')
  })
})

it('has words for money, waiting and how all stand', () => {
  expect(moneyText(null, '€')).toBe('not priced')
  expect(moneyText(1234.6, '')).toBe('1,235')
  expect(waitText({ hours: 5.5, days: 1 })).toBe('5.5 h, 1 day of waiting')
  expect(standText({ ...OPTION, out: 1, unsure: 2 })).toBe('1 out, 2 cannot tell')
  expect(standText({ ...OPTION, out: 0, unsure: 2 })).toBe('2 cannot tell')
  expect(summary(BLOCK, VIEW)).toBe('Another block: Nothing is known.')
  expect(summary({ ...CUT, money: null }, VIEW)).toBe('Cut and shim: 91 % all in, for 1.8 h, no waiting')
})
