import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'

import BlockLife from './BlockLife.vue'
import HoursAgainst from './HoursAgainst.vue'
import { share } from './words'

describe('what the shop learned', () => {
  let page: Page
  beforeEach(() => {
    aroundPage()
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })

  it('tells the life of a block: when it was opened, what its bores were given, where its ledges lie', async () => {
    const opening = (more: object) => ({
      job_id: 'k',
      number: 'F-2',
      name: 'Ferry',
      opened_at: '2026-05-04T08:00:00Z',
      complaint: 'water in the oil',
      steps: [],
      cuts: [],
      ...more,
    })
    const openings = [
      opening({
        steps: [
          [1, 'bore', 254e-6],
          [2, 'leave', null],
        ],
        cuts: [[5, 25.4e-6]],
      }),
      opening({}),
    ]
    page = await mountPage(BlockLife, { serial: '4471', openings })
    expect(page.view.get('h2').text()).toBe('Block 4471: opened 2 times here')
    const [first, second] = page.view.findAll('article').map((one) => one.text())
    expect(first).toContain('2026-05-04')
    expect(first).toContain('1 bore +10.0 thou;')
    expect(first).toMatch(/2 leave\s*;/)
    expect(first).toContain('Ledges cut to: 5 1.0 thou;')
    expect(second).not.toContain('Bores')
    page.view.unmount()
    page = await mountPage(BlockLife, { serial: '4471', openings: [opening({})] })
    expect(page.view.get('h2').text()).toContain('opened 1 time here')
  })

  it('lays hours against their estimate on one scale, and what went over stands out', async () => {
    const hours = [
      { job: 'Ferry', low: '10', worst: '20', worked_h: 25 },
      { job: 'Pump', low: '5', worst: '10', worked_h: 7.5 },
    ]
    page = await mountPage(HoursAgainst, { hours })
    const [over, within] = page.view.findAll('li')
    expect(over?.get('line').classes()).toContain('stroke-out')
    expect(Number(over?.get('line').attributes('x1'))).toBe(200)
    expect(within?.get('line').classes()).toContain('stroke-part')
    expect(Number(within?.get('rect').attributes('x'))).toBe(40)
    expect(Number(within?.get('rect').attributes('width'))).toBe(40)
    expect(within?.text()).toContain('7.5 of 5 to 10 h')
    page.view.unmount()
    page = await mountPage(HoursAgainst, { hours: [] })
    expect(page.view.text()).toContain('Nothing was agreed yet.')
  })

  it('gives shares in whole percents, none of nothing', async () => {
    page = await mountPage(HoursAgainst, { hours: [] })
    expect([share(1, 3), share(0, 0), share(3, 3)]).toEqual(['33 %', '0 %', '100 %'])
  })
})
