import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, settled } from '@/testing/server'

import HotFitPage from './HotFitPage.vue'
import HotRows from './HotRows.vue'

const stated = (value_m: number, expanded_m = 2.54e-6) => ({ value_m, expanded_m })
const moment = (name: string, more: object = {}) => ({
  name,
  block_c: 20,
  liner_c: 20,
  press: stated(50.8e-6),
  grip: 'in',
  by_press_n: 12_000,
  by_clamp_n: 6_000,
  within_n: 800,
  holds: 'in',
  gap: null,
  gap_state: 'not measured',
  height: stated(76.2e-6),
  stands: null,
  ...more,
})
const VIEW = {
  hole: 2,
  liner: 'P2',
  liner_material: 'cast iron',
  block_material: 'aluminium',
  missing: null,
  moments: [
    moment('cold'),
    moment('hot', { block_c: 95, liner_c: 130, grip: 'out', press: stated(-5.08e-6), holds: 'cannot tell' }),
  ],
  gone_alike_c: stated(88, 6.2),
  gone_hotter_c: stated(71, 5),
  hotter_k: 35,
  holder: 'the head clamps it',
  source: 'the card',
  drag_n: 9_000,
  stands: false,
  says: [{ text: 'The press is gone when it is hot.', terms: [] }],
}
const HOT = /hot/
const block = { job: { name: 'Pump' }, holes: [{ number: 1 }, { number: 2 }] } as unknown as BlockView

describe('what holds a liner hot', () => {
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
    server.answer(HOT, { body: view })
    page = await mountPage(HotFitPage, {}, block, '/jobs/j/heat/here/2')
    return page.view
  }

  it('says at what heat the press is gone, alike and with the liner hotter, and what holds it then', async () => {
    const said = (await open()).get('main > p').text()
    expect(said).toContain('88 ±7 °C')
    expect(said).toContain('71 ±5 °C with the liner 35 K hotter')
    expect(said).toContain('only the head holds it')
  })

  it('says that heat does not loosen a block that grows no more than its liner', async () => {
    const said = (await open({ ...VIEW, gone_alike_c: null })).get('main > p').text()
    expect(said).toContain('Heat does not loosen this fit')
  })

  it('says what has to be known first, and nothing else', async () => {
    const view = await open({
      ...VIEW,
      missing: { text: 'The card names no block material.', terms: [] },
      moments: [],
    })
    expect(view.get('[aria-label="Not known"]').text()).toContain('The card names no block material.')
    expect(view.find('[aria-label="Moments of running"]').exists()).toBe(false)
  })

  it('tries other temperatures without recording them', async () => {
    const view = await open()
    await view.get('input[type=range]').setValue('120')
    await settled()
    expect(view.text()).toContain('120 °C')
    expect(server.asked.filter((one) => HOT.test(one.path))).toHaveLength(2)
    expect(server.asked.every((one) => one.method === 'GET')).toBe(true)
  })

  it('has a row for every moment: press, grip, what holds it down, how high it is', async () => {
    const rows = (await open()).findAll('[aria-label="Moments of running"] tbody tr')
    expect(rows[0]?.text()).toContain('+2.0 ±0.1')
    expect(rows[0]?.text()).toContain('gripped')
    expect(rows[0]?.text()).toContain('18.0±0.8')
    expect(rows[1]?.text()).toContain('free')
    expect(rows[0]?.attributes('class')).toContain('bg-part-wash')
    await rows[1]?.get('button').trigger('click')
    expect(
      page.view
        .findAll('[aria-label="Moments of running"] tbody tr')[1]
        ?.get('button')
        .attributes('aria-pressed'),
    ).toBe('true')
  })

  it('says wide of a gap that no gauge would be put into, and how far a liner sank', async () => {
    const view = {
      ...VIEW,
      moments: [
        moment('cold', { gap: stated(1e-3), height: stated(-25.4e-6) }),
        moment('hot', { gap: stated(50.8e-6), holds: 'not measured' }),
      ],
    }
    page = await mountPage(HotRows, { view, chosen: 0 }, block)
    const rows = page.view.findAll('tbody tr').map((one) => one.text())
    expect(rows[0]).toContain('wide')
    expect(rows[0]).toContain('sunk 1.0')
    expect(rows[1]).toContain('+2.0')
    expect(rows[1]).toContain('not known')
    expect(page.view.text()).toContain('against 9.0 drag')
  })
})
