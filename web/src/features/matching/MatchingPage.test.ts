import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, MatchingView, StandsView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, settled } from '@/testing/server'

import MatchingPage from './MatchingPage.vue'
import { arcs, pictureOf } from './picture'
import { headline, moveWords, needWords, stepWords } from './words'

const sized = (um: number, u = 7) => ({ value_m: um * 1e-6, expanded_m: u * 1e-6 })
const stands = (liner: string, um: number, state: StandsView['state'], honing_m = 0) => ({
  liner,
  value: sized(um),
  state,
  honing_m,
})
const plain = { locked: false, shim_m: null, cut_m: null, chance: 0.99, least_m: 50e-6, greatest_m: 100e-6 }
const VIEW: MatchingView = {
  why_not: '',
  of: 'protrusion',
  holes: [
    {
      ...plain,
      hole: 1,
      ways: [stands('A', 105, 'out'), stands('B', 75, 'in')],
      now: 'A',
      then: 'B',
      ledge_m: 8.88e-3,
      stands: sized(75),
      state: 'in',
    },
    {
      ...plain,
      hole: 2,
      ways: [stands('A', 75, 'in'), stands('B', 45, 'out')],
      now: 'B',
      then: 'A',
      ledge_m: 8.91e-3,
      stands: sized(75),
      state: 'in',
    },
  ],
  flanges_m: { A: 8.985e-3, B: 8.955e-3 },
  grades: {},
  goals: [
    { goal: 'holes outside', is_length: false, then: 0, proven: true },
    { goal: 'spread over all holes', is_length: true, then: 25.4e-6, proven: true },
    { goal: 'price of the shims', is_length: false, then: 1250, proven: true },
  ],
  moves: [
    { liner: 'B', from_hole: 2, to_hole: 1 },
    { liner: 'A', from_hole: 1, to_hole: 2 },
  ],
  missing: ['hole 3: its ledge is not read all round'],
  chance: 0.93,
  by_exchange: 0,
  orders: 2,
  proof: [],
  helps: [],
  locks: '',
  why_no_cut: '',
  chosen: null,
}
/** Hole 2 keeps its liner and is cut for a shim of 0.1 mm. */
const CUT: MatchingView = {
  ...VIEW,
  by_exchange: 1,
  moves: [],
  proof: ['Hole 2 asks for a flange of 8.96 or more.', 'No liner has that.'],
  helps: ['one liner with a flange of 8.96 to 9.01, for hole 2', 'a cut in hole 2 on a shim of 0.100'],
  holes: VIEW.holes.map((one) => ({
    ...one,
    then: one.now ?? '',
    ...(one.hole === 2
      ? { shim_m: 100e-6, cut_m: 45e-6, state: null, stands: sized(75, 24), chance: 0.91 }
      : {}),
  })),
}
const PATH = '/api/jobs/j/matching'

describe('who goes where', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (view: object) => {
    server.answer(PATH, (asked) =>
      asked.method === 'POST' ? { status: 201, body: { job_id: 'j' } } : { body: view },
    )
    page = await mountPage(
      MatchingPage,
      {},
      { job: { name: 'Ferry' } } as unknown as BlockView,
      '/jobs/j/matching',
    )
    return page.view
  }
  const lastUrl = () => String((vi.mocked(fetch).mock.calls.at(-1)?.[0] as Request).url)

  it('says how many moves put all in, frames where each goes, lists them, and takes them', async () => {
    const view = await open(VIEW)
    expect(view.text()).toContain('Two moves put all in.')
    const plate = view.find('[aria-label="What this block needs"]')
    expect(plate.text()).toContain('B out of 2, into hole 1')
    expect(plate.text()).toContain('93 %')
    expect(view.text()).toContain('1.0 thou')
    expect(view.text()).toContain('12.50')
    expect(view.text()).toContain('Left out: hole 3')
    expect(view.findAll('td .border-part')).toHaveLength(2)
    await plate.find('button').trigger('click')
    await settled()
    const sent = server.asked.find((one) => one.method === 'POST')
    expect(sent?.body).toMatchObject({ order: ['B', 'A'], cuts: true, locked: [] })
  })

  it('asks again with a hole whose liner stays, without cuts, and with another goal first', async () => {
    const view = await open(VIEW)
    await view.findAll('[aria-label="Every hole then"] button')[1]?.trigger('click')
    await settled()
    expect(lastUrl()).toContain('locked=2')
    await view.findAll('[role=group] button')[0]?.trigger('click')
    await settled()
    expect(lastUrl()).toContain('cuts=false')
    await view.findAll('[aria-label="Goals in their order"] button')[1]?.trigger('click')
    await settled()
    expect(decodeURIComponent(lastUrl()).replace(/\+/g, ' ')).toContain(
      'goals=spread over all holes&goals=holes outside',
    )
    await view.findAll('[aria-label="Every hole then"] button')[1]?.trigger('click')
    await settled()
    expect(lastUrl()).not.toContain('locked=2')
  })

  it('proves that no exchange does it, draws the shim and says what would', async () => {
    const view = await open(CUT)
    expect(view.text()).toContain('No exchange puts all in: one shim is needed.')
    expect(view.text()).toContain('the best by exchange leaves 1 outside')
    expect(view.find('[aria-label="What limits it"]').text()).toContain('No liner has that.')
    expect(view.text()).toContain('What would do: one liner with a flange')
    expect(view.find('[aria-label="Every hole then"]').text()).toContain('91 % in')
    expect(view.find('[aria-label="What this block needs"]').text()).toContain('cut and shim 2')
    expect(view.findAll('svg rect.fill-ink')).toHaveLength(1)
  })

  it('shows dry sleeves by their press, with what is honed for each', async () => {
    const holes = VIEW.holes.map((one) => ({
      ...one,
      now: null,
      ledge_m: null,
      ways: one.ways.map((way) => ({ ...way, honing_m: 20e-6 })),
    }))
    const view = await open({
      ...VIEW,
      of: 'press',
      holes,
      why_no_cut: 'No ledge is cut.',
      flanges_m: {},
      grades: { 'hole-1': 'b', 'liner-A': 'b' },
    })
    expect(view.text()).toContain('hone 0.8')
    expect(view.find('thead').text()).toContain('stamped b')
    expect(view.find('tbody th').text()).toContain('stamped b')
    expect(view.find('[role=group]').exists()).toBe(false)
    expect(view.find('table').text()).not.toContain('ledge')
  })

  it('becomes a tray list once chosen: what can be done now has its key, the rest waits', async () => {
    const step = (kind: string, hole: number, done: boolean, ready: boolean) => ({
      kind,
      hole,
      hole_id: `h${hole}`,
      liner: 'A',
      done,
      ready,
    })
    const chosen = {
      chosen_at: '2026-11-29T08:00:00Z',
      chosen_by: 'Ines',
      is_done: false,
      steps: [
        step('draw', 1, true, false),
        step('draw', 2, false, true),
        step('fit', 1, false, true),
        step('fit', 2, false, false),
      ],
    }
    const view = await open({ ...VIEW, chosen })
    const tray = view.find('[aria-label="Tray list"]')
    expect(tray.text()).toContain('chosen by Ines')
    expect(tray.findAll('li')[0]?.text()).toContain('done')
    expect(tray.findAll('a')).toHaveLength(1)
    expect(tray.find('a').attributes('href')).toContain('liner=A')
    server.answer('/api/holes/h2/draw', { body: { job_id: 'j' } })
    await tray.find('button').trigger('click')
    await settled()
    expect(server.asked.some((one) => one.path === '/api/holes/h2/draw')).toBe(true)
  })

  it('leads to what has to be read first', async () => {
    const view = await open({ ...VIEW, holes: [], why_not: 'Read every ledge first.' })
    expect(view.find('[aria-label="No matching yet"]').text()).toContain('Read every ledge first.')
  })
})

describe('its words and its picture', () => {
  it('names what stays outside, and what cannot be told', () => {
    const all = (state: StandsView['state']) => VIEW.holes.map((one) => ({ ...one, state }))
    expect(headline({ ...VIEW, holes: all('out') })).toBe(
      'No exchange puts all in: holes 1, 2 would stay outside.',
    )
    expect(headline({ ...VIEW, holes: all('cannot tell') })).toBe(
      'Nothing is proven outside, but holes 1, 2 cannot be told.',
    )
    expect(headline({ ...VIEW, moves: [] })).toBe('All are in as they are.')
    expect(headline({ ...CUT, by_exchange: 0 })).toBe('All in: one shim is needed.')
    expect(needWords({ ...VIEW, moves: [] })).toBe('Every liner stays where it is')
    expect(needWords({ ...CUT, moves: VIEW.moves })).toBe('B into 1, A into 2; cut and shim 2')
    expect(moveWords({ liner: 'A', from_hole: 1, to_hole: null })).toBe('A out of 1, to the bench')
    expect(moveWords({ liner: 'C', from_hole: null, to_hole: 2 })).toBe('C from the bench, into hole 2')
    expect(stepWords({ kind: 'cut', liner: 'A', hole: 2 })).toBe('Cut hole 2 for A on its shim')
    expect(stepWords({ kind: 'read', liner: 'A', hole: 2 })).toBe('Read hole 2')
  })

  it('stands heights upright and draws a move for each pair of holes', () => {
    const picture = pictureOf(VIEW, 860)
    expect(picture.columns).toHaveLength(2)
    expect(picture.y(0)).toBeGreaterThan(picture.y(50e-6))
    const [left, cut] = pictureOf(CUT, 860).columns
    expect(left?.shim).toBeNull()
    // The shim lies on the ledge as cut, and the liner on it: deeper than the ledge was by cut less shim.
    expect((cut?.shim?.y ?? 0) + (cut?.shim?.tall ?? 0)).toBeCloseTo(cut?.cut ?? 0)
    expect(cut?.cut).toBeGreaterThan(cut?.ledge ?? 0)
    expect(arcs(VIEW, 860).map((one) => one.words)).toEqual(['B into 1', 'A into 2'])
    expect(arcs({ ...VIEW, moves: [{ liner: 'C', from_hole: null, to_hole: 1 }] }, 430)).toEqual([])
  })
})
