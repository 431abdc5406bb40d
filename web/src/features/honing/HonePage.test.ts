import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView } from '@/api/generated'
import { people } from '@/shared/state/people'
import { personId, unit } from '@/shared/state/preferences'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import HonePage from './HonePage.vue'

const stated = (value_m: number, expanded_m = 5e-6) => ({ value_m, expanded_m, lines: [] })
const HONE = {
  hole: 2,
  holes: [1, 2],
  aim: 'piston',
  quantity: 'liner bore',
  part_key: 'hole-2',
  clamped: true,
  state: 'ready',
  target: {
    part: 'piston 2',
    part_size: stated(0.1),
    more_m: 1.27e-4,
    finished: stated(0.100127),
    source: 'book',
    piston: null,
  },
  refused: null,
  usual_length_m: 0.2,
  setting: {
    method: 'oil',
    drive: 'honing machine',
    rough_grit: 70,
    fine_grit: 220,
    fine_stock_m: 3e-5,
    brush_stock_m: 0,
    length_m: 0.2,
    stone_m: 0.075,
    below_m: 0.04,
    turns: 90,
    strokes: 30,
    wanted_deg: 45,
    hatch_deg: 44.2,
    stroke_m: 0.175,
    above_out_m: 0.025,
    below_out_m: 0.025,
    stop_m: 0.015,
    words: '',
    set_by: 'Wren',
  },
  left: stated(50.8e-6),
  levels: [{ name: 'top', depth_m: 0.02, left: stated(55e-6), state: 'out', more_strokes: 7 }],
  stage: 'rough',
  round_of_stage: 1,
  stage_end_m: 3e-5,
  rate: null,
  stop: 20,
  to_stage_end: null,
  turning: null as object | null,
  made: [],
  ahead: [{ stage: 'rough', strokes: 20, before_m: 50e-6, after_m: null, fast_m: null, slow_m: null }],
  minutes: null,
  says: [],
  cautions: ['Eye protection.'],
  now: '2026-01-02T03:04:05Z',
}
const TURNING = {
  ...HONE,
  state: 'running',
  turning: {
    round_id: 'r1',
    stage: 'rough',
    grit: 70,
    method: 'oil',
    strokes: null,
    before_m: null,
    after_m: null,
    begun_at: '2026-01-02T03:03:45Z',
    begun_by: 'Wren',
  },
}
const SURVEY = {
  part: { key: 'hole-2', title: 'hole 2', hole: 2 },
  is_size: true,
  places: [],
  setup: null,
  warmth: { part_c: '28.0', effect_m: 1e-5, soak_s: 1500 },
}
const ADDRESS = '/api/jobs/j/honing/2'
const block = {
  job: { name: 'Twin' },
  holes: [{ hole_id: 'h2', number: 2 }],
  liners: [],
} as unknown as BlockView

describe('the page of a hone', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    localStorage.clear()
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
    server = fakeServer()
    server.answer(/\/surveys\//, { body: SURVEY })
    people.value = [{ person_id: 'w', name: 'Wren' }]
    personId.value = 'w'
    unit.value = 'thou'
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (hone: object = HONE) => {
    server.answer(ADDRESS, { body: hone })
    page = await mountPage(HonePage, {}, block, '/jobs/j/honing/x/2')
    return page.view
  }
  const sent = (path: string) =>
    server.asked.filter((one) => one.method === 'POST' && one.path === path).map((one) => one.body)

  it('says what is left, the strokes to the stop, and how large it reads', async () => {
    const view = await open()
    expect(view.text()).toContain('rate not learned: measure after 20 strokes')
    expect(view.find('[aria-label="Left to take"]').text()).toContain('2.0')
    expect(view.find('[aria-label="To the stop"]').text()).toBe('0:40')
    expect(view.find('[aria-label="The size"]').text()).toContain('bore at 28.0 °C, as the room in 25 min')
  })

  it('starts and stops by the pedal, with what was counted', async () => {
    const view = await open()
    server.answer(`${ADDRESS}/rounds`, { body: TURNING })
    server.answer(ADDRESS, { body: TURNING })
    window.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }))
    await settled()
    expect(sent(`${ADDRESS}/rounds`)[0]).toMatchObject({ stage: 'rough', person_id: 'w' })
    expect(view.text()).toContain('Stop and measure in')
    await view.find('footer input').setValue('23')
    server.answer(`${ADDRESS}/rounds/r1/stop`, { body: { ...HONE, state: 'measure' } })
    server.answer(ADDRESS, { body: { ...HONE, state: 'measure' } })
    await view.find('footer button').trigger('click')
    await settled()
    expect(sent(`${ADDRESS}/rounds/r1/stop`)[0]).toMatchObject({ strokes: 23 })
    expect(view.text()).toContain('Stopped after 23 double strokes.')
    expect(view.find('[aria-label="Read the bore"]').exists()).toBe(true)
  })

  it('keeps the count and what was typed where the server is away, and sends the same again', async () => {
    const view = await open(TURNING)
    await view.find('footer input').setValue('23')
    server.answer(`${ADDRESS}/rounds/r1/stop`, 'away', { body: { ...HONE, state: 'measure' } })
    await view.find('footer button').trigger('click')
    await settled()
    expect(view.find('footer input').element).toHaveProperty('value', '23')
    server.answer(ADDRESS, { body: { ...HONE, state: 'measure' } })
    await view.find('footer button').trigger('click')
    await settled()
    const [first, second] = sent(`${ADDRESS}/rounds/r1/stop`)
    expect(second).toEqual(first)
    expect(first).toMatchObject({ strokes: 23 })
  })

  it('asks for the reason where a hold point stands, and passes it by name', async () => {
    const view = await open()
    const held = { status: 409, body: refusalBody('hold point', 'Hold point. No plate.') }
    server.answer(`${ADDRESS}/rounds`, held, { body: TURNING })
    await view.find('footer button').trigger('click')
    await settled()
    expect(view.find('[role=alert]').text()).toContain('No plate')
    await view.find('[role=alert] input').setValue('no plate for this one')
    await view.find('[role=alert] button').trigger('click')
    await settled()
    expect(sent(`${ADDRESS}/rounds`).at(-1)).toMatchObject({ hold_reason: 'no plate for this one' })
  })

  it('is set up first where nobody said how it is honed, and loses nothing that is refused', async () => {
    const view = await open({ ...HONE, state: 'set up', setting: null })
    const form = view.find('form[aria-label="How it is honed"]')
    const problem = { field: 'turns', message: 'Type the turns a minute.' }
    const refused = { ...refusalBody('invalid', problem.message), problems: [problem] }
    server.answer(`${ADDRESS}/settings`, { status: 422, body: refused })
    await form.findAll('input')[0]?.setValue('80')
    await form.trigger('submit')
    await settled()
    expect(view.text()).toContain('Type the turns a minute.')
    expect(form.findAll('input')[0]?.element.value).toBe('80')
    expect(sent(`${ADDRESS}/settings`)[0]).toMatchObject({ rough_grit: 80, aim: 'piston' })
  })

  it('says why there is no size', async () => {
    const refused = { text: 'Nobody measured piston 2.', terms: [] }
    const view = await open({ ...HONE, state: 'no size', target: null, refused })
    expect(view.text()).toContain('Nobody measured piston 2.')
    expect(view.find('footer').exists()).toBe(false)
  })

  it('has no key once it is done', async () => {
    const view = await open({ ...HONE, state: 'done', stage: null })
    expect(view.text()).toContain('in: it fits its part')
    expect(view.find('footer').text()).not.toContain('Start the stones')
  })
})
