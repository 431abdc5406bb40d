import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { LandsView, PartsComparedView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, settled } from '@/testing/server'

import LandsPage from './LandsPage.vue'

const liner = (mark: string, make = 'Quarnforth') => ({
  liner_id: mark,
  job_id: 'j',
  job: 'Ferry',
  mark,
  make,
  batch: '7',
})
const at = (mark: string, um: number, kind = 0) => ({
  liner_id: mark,
  value: { value_m: um * 1e-6, expanded_m: 4e-6 },
  kind,
})
const VIEW = {
  makes: [
    { make: 'Pellerby', liners: 4 },
    { make: 'Quarnforth', liners: 2 },
  ],
  make: 'Quarnforth',
  reference: 'flat land',
  lands: [
    {
      land: 'flat land',
      reads: [at('L2', 8990), at('L7', 8994)],
      mean_m: 8.992e-3,
      deviation_m: 2.8e-6,
      apart_m: null,
    },
    {
      land: 'lip',
      reads: [at('L2', 30, 1), at('L7', 95, 2)],
      mean_m: 62.5e-6,
      deviation_m: null,
      apart_m: 65e-6,
    },
  ],
  liners: [liner('L2'), liner('L7')],
  every_liner: [liner('L2'), liner('L7'), liner('L1', 'Pellerby')],
  notices: ['The lip over the flat land comes in two heights, 65 µm apart: L2 and L7.'],
  unread: ['bead'],
  alerts: [{ make: 'Quarnforth', batch: '7', words: 'Quarnforth, batch 7: 91 µm too low', middle_m: -91e-6 }],
} as unknown as LandsView
const COMPARED = {
  lands: [
    { land: 'bead', old: null, new: null, difference: null, alike: null },
    {
      land: 'lip',
      old: at('L2', 30).value,
      new: at('L7', 95).value,
      difference: { value_m: 65e-6, expanded_m: 5e-6 },
      alike: false,
    },
  ],
  verdict: 'They differ on the lip.',
} as unknown as PartsComparedView

describe('the lands of a make', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    localStorage.clear()
    server = aroundPage()
    server.answer('/api/lands', { body: VIEW })
    server.answer('/api/lands/compared', { body: COMPARED })
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })

  it('shows each land with its liners, what is noticed, what nobody has read', async () => {
    page = await mountPage(LandsPage, {}, {}, '/shop/lands')
    const text = page.view.text()
    expect(text).toContain('two heights, 65 µm apart')
    expect(text).toContain('batch 7: 91 µm too low')
    expect(text).toContain('nobody has read it on a liner of this make')
    expect(page.view.findAll('section[aria-label="lip"] circle')).toHaveLength(1)
    expect(page.view.find('section[aria-label="lip"] svg').attributes('aria-label')).toContain('L7 +3.7')
  })

  it('holds an old part against a new one, and asks anew for another', async () => {
    page = await mountPage(LandsPage, {}, {}, '/shop/lands')
    const parts = page.view.find('section[aria-label="Old against new"]')
    expect(parts.text()).toContain('unknown')
    expect(parts.text()).toContain('differs')
    expect(parts.text()).toContain('They differ on the lip.')
    const before = server.asked.filter((one) => one.path === '/api/lands/compared').length
    await parts.findAll('select')[1]?.setValue('L1')
    await settled()
    expect(server.asked.filter((one) => one.path === '/api/lands/compared').length).toBe(before + 1)
  })

  it('goes to another make by its button', async () => {
    page = await mountPage(LandsPage, {}, {}, '/shop/lands')
    await page.view.find('[aria-label="Make"] button').trigger('click')
    await settled()
    expect(page.router.currentRoute.value.query['make']).toBe('Pellerby')
  })
})
