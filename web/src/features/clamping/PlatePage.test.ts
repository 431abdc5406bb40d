import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import PlatePage from './PlatePage.vue'
import { boltPicture, wayToNext } from './bolts'

const ONE = {
  tightening_id: 't',
  clamp: 'torque plate',
  fixture: 'Tarrick plate',
  gasket: 'copper',
  fasteners: 'studs',
  from_hole: 1,
  to_hole: 2,
  order: [3, 4, 2, 1, 5, 6],
  stages_nm: [40, 95],
  words: '',
  begun_at: '2026-11-28T10:00:00Z',
  begun_by: 'Wren',
  state: 'being tightened',
  turn: 2,
  rounds: 3,
  bolt: 2 as number | null,
  torque_nm: 95,
  is_trial: false,
  done: [3, 4],
  otherwise: [],
  differs: [] as string[],
  marks: [] as object[],
}
const HELD = {
  hole: 1,
  clamped: { value_m: 12.7e-6, expanded_m: 5e-6 },
  clamped_state: 'in',
  clamped_reason: '',
  free: null,
  size_change: { value_m: -12.7e-6, expanded_m: 5e-6 },
  says: [],
}
const BUILD = { gasket: 'copper', fasteners: 'studs', torque_nm: 95 as number | null }
const VIEW = {
  quantity: 'block bore',
  build: BUILD,
  plate_advice: 'advice',
  caps_advice: 'caps',
  caution: ['bar clear of fingers'],
  tightenings: [ONE],
}
const NOW = '/api/jobs/j/clamping'
const BOLTS = '/api/jobs/j/clamping/t/bolts'
const block = { job: { name: 'Four' }, holes: [], liners: [] } as unknown as BlockView

describe('plate and caps', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (view: object = VIEW) => {
    server.answer('/api/jobs/j/clamping/holes', { body: [HELD] })
    server.answer(NOW, { body: view })
    page = await mountPage(PlatePage, {}, block, '/jobs/j/plate')
    return page.view
  }

  it('shows the next bolt, its torque in both units, and that it is as in the build', async () => {
    const text = (await open()).text()
    expect(text).toContain('Bolt 2')
    expect(text).toContain('95 N·m')
    expect(text).toContain('70 lbf·ft')
    expect(text).toContain('round 2 of 2, 2 of 6 done')
    expect(text).toContain('those of the build')
    expect(text).toContain('0.5 ±0.2')
    expect(text).toContain('closes it in by 0.5')
  })

  it('marks the bolt by the pedal, with what was read on a dial', async () => {
    const view = await open()
    await view.find('input[placeholder="N·m"]').setValue('93')
    server.answer(BOLTS, {
      body: { ...VIEW, tightenings: [{ ...ONE, bolt: 1, marks: [{ bolt: 2, turn: 2 }] }] },
    })
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'F8' }))
    await settled()
    expect(server.asked.find((one) => one.path === BOLTS)?.body).toMatchObject({
      bolt: 2,
      kind: 'turned',
      torque: '93',
      person_id: 'w',
    })
    expect(view.text()).toContain('Bolt 1')
  })

  it('asks in a trial whether it held or moved on', async () => {
    const view = await open({ ...VIEW, tightenings: [{ ...ONE, is_trial: true, turn: 3 }] })
    expect(view.text()).toContain('try each once more')
    server.answer(BOLTS, { body: VIEW })
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'm' }))
    await settled()
    expect(server.asked.find((one) => one.path === BOLTS)?.body).toMatchObject({ bolt: 2, kind: 'moved on' })
  })

  it('says what is not as in the build, and what the card does not say', async () => {
    const differs = ['the plate was held by bolts']
    const build = { gasket: '', fasteners: '', torque_nm: null }
    const view = await open({ ...VIEW, build, tightenings: [{ ...ONE, differs }] })
    expect(view.text()).toContain('the plate was held by bolts')
    expect(view.text()).toContain('The card does not say how the head is held')
  })

  it('keeps what is typed where a tightening is refused', async () => {
    const view = await open({ ...VIEW, tightenings: [] })
    const problem = { field: 'bolts', message: 'Type how many bolts there are.' }
    server.answer(NOW, {
      status: 422,
      body: { ...refusalBody('invalid', problem.message), problems: [problem] },
    })
    await view.find('form').findAll('input')[1]?.setValue('40 95')
    await view.find('form').trigger('submit')
    await settled()
    expect(view.text()).toContain('Type how many bolts there are.')
    expect(view.find('form').findAll('input')[1]?.element.value).toBe('40 95')
  })
})

describe('the picture of the bolts', () => {
  it('stands bolts in pairs from end to end with the holes between them', () => {
    const picture = boltPicture({ ...ONE, clamp: 'torque plate' })
    const at = (bolt: number) => picture.bolts.find((one) => one.bolt === bolt) ?? { x: 0, y: 0 }
    expect(at(1).x).toBe(at(2).x)
    expect(at(1).y).toBeLessThan(at(2).y)
    expect(picture.held.map((one) => one.what)).toEqual(['1', '2'])
    expect(picture.held[0]?.x).toBeGreaterThan(at(1).x)
    expect(picture.held[0]?.x).toBeLessThan(at(3).x)
    expect(at(6).x).toBeLessThan(picture.width)
  })

  it('stands them round a circle over one hole, one above each other', () => {
    const picture = boltPicture({ clamp: 'torque plate', order: [1, 3, 2, 4], from_hole: 2, to_hole: 2 })
    expect(picture.held).toHaveLength(1)
    expect(picture.bolts[0]?.x).toBeCloseTo(picture.width / 2)
    expect(picture.bolts[1]?.x).toBeGreaterThan(picture.bolts[3]?.x ?? 0)
  })

  it('draws the way from the last bolt to the next', () => {
    const bolts = [
      { bolt: 1, x: 1, y: 2 },
      { bolt: 2, x: 3, y: 4 },
    ]
    expect(wayToNext({ order: [2, 1], done: [2], bolt: 1 }, bolts)).toBe('3,4 1,2')
    expect(wayToNext({ order: [2, 1], done: [2, 1], bolt: null }, bolts)).toBe('')
  })
})
