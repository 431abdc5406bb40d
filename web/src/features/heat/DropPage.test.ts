import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, DropPageView, DropView, HeatMarkKind } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import DropPage from './DropPage.vue'
import { callBetween, clockText, largeOf } from './dropWords'
import { withKept } from './keptMarks'

const said = (text: string) => ({ text, terms: [] })
const OUT_AT = '2026-11-29T10:00:00.000Z'
/** By the server's clock, however wrong the watch here is. */
const NOW = '2026-11-29T10:00:05.000Z'
const STEPS: HeatMarkKind[] = ['bag off', 'wiped and dried', 'over the hole, square', 'enters']
const DROP: DropView = {
  heat_run_id: 'r',
  liner: 'P3',
  state: 'ready to come out of the cold',
  goes_on: true,
  block_c: 80,
  liner_c: -18,
  wanted_m: 38e-6,
  enter_s: 40,
  home_s: 5,
  drops: 'Tobiah',
  calls: 'Ines',
  out_at: null,
  entered_s: null,
  home: null,
  home_s_after_out: null,
  checks: [
    { kind: 'liner, hole and front marked', done_by: 'Ines' },
    { kind: 'clamp within reach', done_by: 'Ines' },
  ],
  next_step: null,
  sheet: STEPS.map((kind, at) => ({ kind, due_s: [12, 25, 35, 40][at] ?? 0, done_s: null })),
  marks: [],
  liner_reads: [],
  block_reads: [],
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
  learned: {
    air_c: 21,
    liner_c: -16.5,
    liner_within_k: 1,
    liner_planned_c: -18,
    liner_reads: 2,
    liner_now_c: -16.1,
    block_c: 77.9,
    block_within_k: 1,
    block_planned_c: 80,
    block_reads: 0,
    block_now_c: 77.6,
  },
  felt: null,
  hold: null,
  heights: null,
}
const RUNS: DropView = { ...DROP, state: 'out of the cold', out_at: OUT_AT, next_step: 'bag off' }
const IN: DropView = { ...RUNS, state: 'in the hole', entered_s: 12, next_step: null }
const SOON_IN: DropView = { ...RUNS, next_step: 'enters' }
const HOME: DropView = {
  ...IN,
  state: 'home: hold it down',
  goes_on: false,
  home: 'pushed',
  home_s_after_out: 13,
  felt: {
    kind: 'pushed',
    at_s: 13,
    low_m: 60e-6,
    likely_m: 1e-4,
    high_m: 12e-5,
    expected: 'drops freely',
    is_harder: true,
    says: said('It was pushed: it should have gone in more easily.'),
    looks: ['It entered 10 s later than planned.'],
  },
  hold: { block_c: 70, air_c: 21, until_s: 6000, reads: 2, is_cold: false },
  heights: {
    warm_m: 50e-6,
    cold_m: null,
    again_m: null,
    grew_m: 30e-6,
    lifted_m: null,
    pressed_m: null,
    within_m: 9e-6,
    settles: 'not told yet',
    says: said('Read the same place again.'),
  },
}
const page = (drop: DropView | null): DropPageView => ({
  hole: 3,
  now: NOW,
  is_filled: false,
  drop,
  others: [
    { hole: 4, liner: 'P4', needs_c: 63, until_s: 780, is_open: false, missing: '' },
    {
      hole: 1,
      liner: 'P1',
      needs_c: null,
      until_s: null,
      is_open: false,
      missing: 'read hole and liner first',
    },
    { hole: 5, liner: 'P5', needs_c: 88, until_s: null, is_open: false, missing: '' },
  ],
  tray: [
    { hole: 2, liner: 'P2', is_in: true },
    { hole: 3, liner: 'P3', is_in: false },
  ],
  offered: ['P1', 'P3'],
  front: '12h: the exhaust side',
  cautions: ['Hot aluminium looks cold.'],
  stuck: ['Stop. Nobody hammers.'],
})

const PATH = '/api/jobs/j/heat/3/run'
const MARKS = '/api/jobs/j/heat/3/run/r/marks'

const left = (view: Page['view']) => Number(view.find('[role=timer]').text())

describe('a drop that runs', () => {
  let fake: FakeServer
  let mounted: Page
  beforeEach(() => {
    fake = aroundPage()
  })
  afterEach(() => {
    mounted.view.unmount()
    vi.unstubAllGlobals()
  })
  const server = () => fake
  const open = async (address = '/jobs/j/heat-run/protrusion/3') => {
    mounted = await mountPage(DropPage, {}, { job: { name: 'Pump' } } as unknown as BlockView, address)
    return mounted.view
  }

  it('begins with the liner of its hole, as it was planned, with two people', async () => {
    server().answer(PATH, { body: page(null) }, { status: 201, body: page(DROP) })
    const view = await open()
    expect(view.text()).toContain('Block 80 °C, liner −18 °C')
    expect((view.find('select[name=liner_mark]').element as HTMLSelectElement).value).toBe('P3')
    await view.find('select[name=calls]').setValue('Wren')
    await view.find('button.act').trigger('click')
    await settled()
    const sent = server().asked.find((one) => one.method === 'POST')?.body as Record<string, unknown>
    expect(sent).toMatchObject({ liner_mark: 'P3', block_c: 80, liner_c: -18, calls: 'Wren', greased: true })
    expect(view.find('[aria-label="Clock"]').text()).toContain('47')
  })

  it('shows what is in the way at its place', async () => {
    server().answer(
      PATH,
      { body: page(null) },
      { status: 409, body: refusalBody('hold point', 'Hold point. Seals are not in.') },
    )
    const view = await open()
    await view.find('button.act').trigger('click')
    await settled()
    expect(view.find('[role=alert]').text()).toContain('Seals are not in')
  })

  it('starts its clock by the pedal and notes each step with its moment', async () => {
    server().answer(PATH, { body: page(DROP) })
    server().answer(MARKS, { status: 201, body: page(RUNS) })
    const view = await open()
    document.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }))
    await settled()
    const noted = server()
      .asked.filter((one) => one.method === 'POST')
      .map((one) => one.body)
    expect(noted[0]).toMatchObject({ kind: 'liner out of the cold' })
    expect(left(view)).toBeLessThanOrEqual(42)
    expect(left(view)).toBeGreaterThan(20)
    expect(view.find('[aria-label="Clock"]').text()).toContain('Tobiah: bag off')
    expect(view.text()).toContain('Done: bag off')
    await view.find('button.act').trigger('click')
    await settled()
    const last = server().asked.at(-1)?.body as { kind: string; at: string }
    expect(last.kind).toBe('bag off')
    expect(Date.parse(last.at) - Date.parse(NOW)).toBeLessThan(20_000)
  })

  it('keeps what cannot be sent with its own time, goes on, and sends it when the link is back', async () => {
    server().answer(PATH, { body: page(RUNS) })
    server().answer(MARKS, 'away')
    const view = await open()
    await view.find('button.act').trigger('click')
    await settled()
    expect(view.text()).toContain('1 wait for the link')
    expect(view.text()).toContain('Done: wipe and dry')
    const kept = JSON.parse(localStorage.getItem('vallo-drop-j') ?? '[]') as { body: { kind: string } }[]
    expect(kept.map((one) => one.body.kind)).toEqual(['bag off'])
  })

  it('asks how it went, and wants words of one that is stuck', async () => {
    server().answer(PATH, { body: page(IN) })
    server().answer(MARKS, { status: 201, body: page({ ...IN, state: 'stuck' }) })
    const view = await open()
    await view
      .findAll('button')
      .find((one) => one.text() === 'stuck')
      ?.trigger('click')
    expect(view.find('[role=alert]').text()).toContain('Nobody hammers')
    expect(server().asked.some((one) => one.method === 'POST')).toBe(false)
    await view.find('input[name=words]').setValue('20 mm out')
    await view.find('[role=alert] button').trigger('click')
    await settled()
    expect(server().asked.at(-1)?.body).toMatchObject({ kind: 'stuck', words: '20 mm out' })
    expect(view.text()).toContain('Taken back out')
  })

  it('says after home why it went hard, until when it is held, and what heights settle', async () => {
    server().answer(PATH, { body: page(HOME) })
    server().answer(MARKS, { status: 201, body: page(HOME) })
    const view = await open()
    expect(view.find('[aria-label="What it felt like"]').text()).toContain('It entered 10 s later')
    expect(view.find('[role=timer]').text()).toMatch(/^1:39:[345]\d$/)
    await view.find('input[name=height]').setValue('2.9')
    await view.find('[aria-label="Afterwards"] form').trigger('submit')
    await settled()
    expect(server().asked.at(-1)?.body).toMatchObject({
      kind: 'height cold',
      height: '2.9',
      bare_unit: 'thou',
    })
    expect(view.text()).toContain('out within')
    expect(view.text()).toContain('heat again, to 88 °C and more')
  })

  it('stands large on a wall, with nothing to press', async () => {
    server().answer(PATH, { body: page(RUNS) })
    const view = await open('/jobs/j/heat-run/protrusion/3?wall=')
    expect(left(view)).toBeLessThanOrEqual(42)
    expect(left(view)).toBeGreaterThan(20)
    expect(view.findAll('button')).toHaveLength(0)
  })
})

describe('what is shown large and called out', () => {
  it('counts to the end of the window, and says when it is over', () => {
    expect(largeOf(DROP, 0)).toMatchObject({ digits: '47', tone: 'text-ink' })
    expect(largeOf(RUNS, 10)).toMatchObject({ digits: '37', tone: 'text-ink' })
    expect(largeOf(SOON_IN, 40)).toMatchObject({ digits: '7', tone: 'text-act' })
    expect(largeOf(IN, 50)).toMatchObject({ digits: '0', tone: 'text-out' })
    // With the bag still on at 40 s all that follows is 28 s later.
    expect(largeOf(RUNS, 40)).toMatchObject({ digits: '35', tone: 'text-ink' })
    expect(largeOf(IN, 50).words).toBe('the window has closed')
    expect(largeOf({ ...IN, window: null }, 50)).toMatchObject({ tone: 'text-out' })
    const open = { ...DROP.window, home_by_s: null } as DropView['window']
    expect(largeOf({ ...IN, window: open }, 50).words).toContain('stays open')
    expect(largeOf({ ...IN, state: 'stuck' }, 50).tone).toBe('text-out')
    expect(largeOf(HOME, 7000).digits).toBe('0:00')
    expect([clockText(99), clockText(100), clockText(3_700)]).toEqual(['99', '1:40', '1:01:40'])
  })

  it('calls a step before it is due and the last five seconds, each once', () => {
    expect(callBetween(RUNS, 8.9, 9.1)).toBe('bag off')
    expect(callBetween(RUNS, 9.1, 9.3)).toBe('')
    expect(callBetween(IN, 41.85, 41.95)).toBe('5')
    expect(callBetween(RUNS, 41.85, 41.95)).toBe('')
    expect(callBetween(IN, 46.85, 46.95)).toBe('closed')
    expect(callBetween(DROP, 8.9, 9.1)).toBe('')
  })

  it('goes on with what waits for the link', () => {
    const at = (seconds: number) => new Date(Date.parse(OUT_AT) + seconds * 1000).toISOString()
    const out = withKept(DROP, [{ kind: 'liner out of the cold', at: OUT_AT }])
    expect([out.state, out.next_step]).toEqual(['out of the cold', 'bag off'])
    const inside = withKept(RUNS, [
      { kind: 'bag off', at: at(10) },
      { kind: 'enters', at: at(30) },
      { kind: 'stuck', at: at(33) },
    ])
    expect([inside.state, inside.entered_s, inside.sheet[0]?.done_s]).toEqual(['stuck', 30, 10])
    expect(withKept(IN, [{ kind: 'dropped', at: at(33) }]).home).toBe('dropped')
    expect(withKept(IN, [{ kind: 'block read', at: at(33) }]).state).toBe('in the hole')
  })
})

vi.mock('@/shared/state/readBack', async (original) => ({
  ...(await original<typeof import('@/shared/state/readBack')>()),
  tell: vi.fn(),
}))
