import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, settled } from '@/testing/server'

import { pairAt, pairsFace, span, windowChart, xLiner, yBlock } from './chart'
import HeatPage from './HeatPage.vue'

const said = (text: string) => ({ text, terms: [] })
const way = {
  name: 'heat only',
  medium: 'oven',
  block_c: 56.2,
  liner_c: 20,
  against: [] as string[],
  soak_s: 1565,
  boils_kg: null as number | null,
}
const PLAN = {
  outside_m: 0.1143,
  press: { value_m: 38.1e-6, expanded_m: 16.3e-6 },
  worst_m: 54.4e-6,
  wall_m: 0.0048,
  wall_known: true,
  clearance_m: 144e-6,
  at_start: 'drops freely',
  says: said('The worst pair leaves enough: it drops.'),
  wanted_line: [
    { liner_c: -78.5, block_c: 15 },
    { liner_c: 20, block_c: 56 },
  ],
  touch_line: [
    { liner_c: -78.5, block_c: 2 },
    { liner_c: 20, block_c: 43 },
  ],
  limits: [{ what: 'the block, cast aluminium', celsius: 150, is_least: false, why: 'it softens' }],
  against: [] as string[],
  ways: [way, { ...way, name: 'dry ice only', block_c: null, boils_kg: 0.5, against: ['the seals: −25 °C'] }],
  window: {
    times_s: [0, 40, 45, 50, 60],
    low_m: [136e-6, 132e-6, 60e-6, -10e-6, -40e-6],
    likely_m: [160e-6, 157e-6, 120e-6, 60e-6, -30e-6],
    high_m: [185e-6, 182e-6, 160e-6, 120e-6, 20e-6],
    enter_s: 40,
    home_by_s: 46.9,
    grabs_s: 49,
    likely_s: 56,
  },
  steps: [
    { name: 'out of the cold', until_s: 0, low_m: 136e-6, drops: 'drops freely' },
    { name: 'carried', until_s: 40, low_m: 132e-6, drops: 'drops freely' },
    { name: 'home', until_s: 45, low_m: 60e-6, drops: 'drops freely' },
  ],
  water: { dew_c: 9.3, is_frost: true, least_m: 4e-6, most_m: 16e-6, left: 0, gap_m: 66e-6, is_wet: true },
  medium: 'freezer',
  boils_kg: null,
  held_s: 6600,
  oven_s: 1800,
  bath_s: 99,
  liner_s: 3900,
  energy_kwh: 0.46,
  cautions: ['Bag the liner before it goes in.'],
  spreads: ['sizes by their ±'],
}
const VIEW = {
  hole: 2,
  liner: 'P1',
  missing: null,
  liner_material: 'cast iron',
  block_material: 'cast aluminium',
  plan: PLAN,
  sides: [
    { name: 'press cold', reason: 'Nothing shrinks back.', is_followed: false },
    { name: 'heat and cold', reason: 'No force.', is_followed: true },
  ],
  settled_by: 'Heights read cold.',
  seals: [
    {
      seal: {
        name: 'upper',
        groove_in: 'liner',
        material: 'nitrile',
        grease: 'rubber grease',
        bore_known_by: 'as read',
        squeeze: 0.21,
        squeeze_least: 0.19,
        squeeze_greatest: 0.23,
        stretch: 0.02,
        fill: 0.8,
        fill_hot: 1.04,
        against: [],
      },
      coldest_c: -25,
      warmest_c: 110,
      known_by: 'by the card',
      minds: ['put it on after the cold'],
    },
  ],
  cold_force_n: [5800, 11000, 17600],
}
const AIR = {
  times_s: [0, 300],
  oxygen: [0.2095, 0.204],
  carbon_dioxide: [0.0004, 0.0286],
  least_oxygen: 0.204,
  most_carbon_dioxide: 0.0286,
  oxygen_limit: 0.195,
  shift_limit: 0.005,
  short_limit: 0.03,
}
const block = {
  job: { name: 'Pump' },
  holes: [{ number: 1 }, { number: 2 }],
  liners: [],
} as unknown as BlockView
const HEAT = '/api/jobs/j/heat/2'

/** The address that was asked for last, with what somebody tries. */
const lastUrl = () => String((vi.mocked(fetch).mock.calls.at(-1)?.[0] as Request).url)

describe('heat and cold', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
    server.answer('/api/heat/room', { body: AIR })
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (view: object, query = '') => {
    server.answer(HEAT, { body: view })
    page = await mountPage(HeatPage, {}, block, `/jobs/j/heat/x/2${query}`)
    await settled()
    return page.view
  }

  it('says until when a liner has to be home, and what is to spare', async () => {
    const text = (await open(VIEW)).text()
    expect(text).toContain('Home within 6.9 s of entering')
    expect(text).toContain('47 s out of the cold')
    expect(text).toContain('1.9 s to spare')
    expect(text).toContain('+5.7 thou')
    expect(text).toContain('1.8 h')
    expect(text).toContain('30 min · 99 s')
    expect(text).toContain('0.5 kWh')
    expect(text).toContain('Bag the liner before it goes in.')
  })

  it('says when a plan comes too late, and when the window is shut before it enters', async () => {
    const late = { ...PLAN, window: { ...PLAN.window, home_by_s: 43 } }
    expect((await open({ ...VIEW, plan: late })).text()).toContain('2.0 s too late')
    page.view.unmount()
    const shut = { ...PLAN, window: { ...PLAN.window, home_by_s: 0 } }
    expect((await open({ ...VIEW, plan: shut })).text()).toContain('The window is shut before it enters')
    page.view.unmount()
    const never = { ...PLAN, window: { ...PLAN.window, home_by_s: null, grabs_s: null, likely_s: null } }
    expect((await open({ ...VIEW, plan: never })).text()).toContain('The window stays open')
  })

  it('asks for a plan with every slider that is moved, and keeps it over a reload', async () => {
    const view = await open(VIEW)
    await view.find('input[type=range]').setValue('95')
    await settled()
    expect(lastUrl()).toContain('block_c=95')
    expect(JSON.parse(localStorage.getItem('vallo-heat-j') ?? '{}')).toMatchObject({ block_c: 95 })
  })

  it('takes a way of the table as the pair that is tried, and shows what stands against one', async () => {
    const view = await open(VIEW, '?view=ways')
    const table = view.find('[aria-label="Ways"]')
    expect(table.text()).toContain('0.5 kg of oven')
    expect(table.text()).toContain('the seals: −25 °C')
    expect(table.text()).toContain('does not reach it')
    await table.find('button').trigger('click')
    await settled()
    expect(lastUrl()).toContain('block_c=57')
    expect(view.text()).toContain('11.0')
    expect(view.text()).toContain('this job')
  })

  it('holds frost against the gap and the room against both limits', async () => {
    const view = await open(VIEW, '?view=air')
    expect(view.text()).toContain('It would fill 24 % of the gap')
    expect(view.text()).toContain('nothing of it is left')
    expect(view.find('[aria-label="Air of the room"]').text()).toContain('28,600 ppm')
    expect(view.text()).toContain('Local rules first')
  })

  it('shows each ring in its order, also where no press is known', async () => {
    const view = await open({ ...VIEW, plan: null, missing: said('Nobody measured.') }, '?view=seals')
    const ring = view.find('ol li')
    expect(ring.text()).toContain('19 % to 23 % off centre')
    expect(ring.text()).toContain('−25 to 110 °C')
    expect(ring.text()).toContain('put it on after the cold')
    expect(ring.find('.text-out').text()).toBe('104 %')
    page.view.unmount()
    expect((await open({ ...VIEW, seals: [] }, '?view=seals')).text()).toContain('The card names no seals')
  })

  it('says what is missing where nothing can be planned', async () => {
    const view = await open({ ...VIEW, plan: null, missing: said('Nobody measured the block bore.') })
    expect(view.find('[aria-label="No plan yet"]').text()).toContain('Nobody measured the block bore.')
  })
})

describe('pictures of a drop', () => {
  it('ends a little after the window shuts, with the band between its edges', () => {
    const chart = windowChart(PLAN.window, 38e-6, 25.4e-6, 828)
    expect(chart.x(0)).toBe(58)
    expect(chart.y(0)).toBeGreaterThan(chart.y(38e-6))
    expect(chart.band.endsWith('Z')).toBe(true)
    expect(chart.seconds.at(-1)).toBeLessThanOrEqual(60)
    expect(chart.y(1)).toBe(14)
    const shut = { ...PLAN, window: { ...PLAN.window, likely_s: 0, grabs_s: 0 } }
    expect(windowChart(shut.window, 38e-6, 25.4e-6, 828).band).toMatch(/^M/)
  })

  it('finds the pair under a point, within what sliders take', () => {
    expect(pairAt(xLiner(-18), yBlock(80))).toEqual({ liner_c: -18, block_c: 80 })
    expect(pairAt(-500, 9000)).toEqual({ liner_c: -196, block_c: 0 })
    expect(pairsFace([])).toBe('')
    expect(pairsFace(PLAN.wanted_line)).toMatch(/^M.*Z$/)
  })

  it('says times as a shop does', () => {
    expect([span(47.4), span(1565), span(6600)]).toEqual(['47 s', '26 min', '1.8 h'])
  })
})
