import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, SwapsView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer } from '@/testing/server'

import { putWords, swapHeadline } from './swaps'
import SwapsPage from './SwapsPage.vue'

const sized = (um: number, u = 3) => ({ value_m: um * 1e-6, expanded_m: u * 1e-6 })
const read = (hole: string, liner: string, um: number, fits = true) => ({
  hole,
  liner,
  read: sized(um),
  shims_m: liner === 'B' ? 100e-6 : 0,
  is_in: true,
  left_over: sized(fits ? 1 : 15),
  fits,
})
const effect = (name: string, um: number, group = 0) => ({ name, group, value: sized(um) })
const VIEW: SwapsView = {
  why_not: '',
  fittings: [read('1', 'A', 90), read('1', 'B', 80), read('2', 'A', 50), read('2', 'B', 40)],
  holes: [effect('1', 85), effect('2', 45)],
  liners: [effect('A', 5), effect('B', -5)],
  groups: 1,
  freedom: 1,
  left_out: ['C in 3: read over the lip, not the flat land'],
  proposed: { puts: [{ hole: '2', liner: 'C' }], before_m: 90e-6, after_m: 12.7e-6 },
}

describe('the swap table', () => {
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
    server.answer('/api/jobs/j/swaps', { body: view })
    page = await mountPage(SwapsPage, {}, { job: { name: 'Ferry' } } as unknown as BlockView, '/jobs/j/swaps')
    return page.view
  }

  it('tells holes from liners, with what they leave over and the exchange that tells most', async () => {
    const view = await open(VIEW)
    expect(view.text()).toContain('Holes told from liners by 1 reading more than it takes')
    expect(view.findAll('tbody tr')).toHaveLength(2)
    expect(view.find('tbody tr').text()).toContain('+3.3')
    expect(view.find('tbody tr').text()).toContain('on 3.9')
    const plate = view.find('[aria-label="What to exchange next"]')
    expect(plate.text()).toContain('C from the bench into 2')
    expect(plate.text()).toContain('±0.5 thou')
    expect(plate.find('a').attributes('href')).toContain('liner=C')
    expect(view.findAll('figure circle')).toHaveLength(4)
    expect(view.text()).toContain('Left out: C in 3')
  })

  it('points to a reading that neither explains', async () => {
    const view = await open({ ...VIEW, fittings: [read('1', 'A', 150, false)], groups: 0 })
    expect(view.text()).toContain('do not explain one reading')
    expect(view.text()).toContain('look at that fitting, not at the parts')
  })

  it('says why there is none', async () => {
    expect((await open({ ...VIEW, why_not: 'No fitted liner was read yet.' })).text()).toContain('No fitted')
  })

  it('has words for every case', () => {
    expect(swapHeadline({ ...VIEW, groups: 4 })).toContain('nothing tells hole from liner yet')
    expect(swapHeadline({ ...VIEW, groups: 2, freedom: 0 })).toBe(
      'Holes told from liners by just as many readings as it takes, in 2 groups that nothing ties together',
    )
    const puts = [
      { hole: '1', liner: 'B' },
      { hole: '2', liner: 'A' },
    ]
    expect(putWords({ puts, before_m: 1, after_m: 0 })).toBe('B into 1, A into 2')
    expect(putWords({ puts: [], before_m: 1, after_m: 0 })).toBe('')
  })
})
