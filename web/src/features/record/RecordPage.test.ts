import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { network } from '@/shared/state/network'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import RecordPage from './RecordPage.vue'

const OUT = {
  at: '2026-11-20T10:00:00Z',
  went_out: true,
  job_id: 'j',
  number: 'F-1',
  name: 'Ferry',
  by: 'Wren',
  sha256: 'ab'.repeat(32),
  words: 'head 12',
}
const DOOR = [
  { at: '2026-11-20T11:00:00Z', kind: 'wrong code', address: '10.0.0.7', words: 'Another screen' },
  { at: '2026-11-20T12:00:00Z', kind: 'let in', address: '10.0.0.7', words: 'Another screen' },
]

describe('holding something against the record', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
    server.answer('/api/verifications', { body: [OUT] })
    server.answer('/api/network/log', { body: DOOR })
  })
  afterEach(() => {
    page.view.unmount()
    network.value = null
    vi.unstubAllGlobals()
  })
  const open = async () => {
    page = await mountPage(RecordPage, {}, null, '/shop/record')
    return page.view
  }
  const hold = async (head: string, answer: object) => {
    server.answer('/api/verifications/head', answer as never)
    await page.view.get('input:not([type=file])').setValue(head)
    await page.view.get('form').trigger('submit')
    await settled()
  }

  it('says that a head stands, and leads to its job', async () => {
    const view = await open()
    expect(view.get('form button').attributes('disabled')).toBeDefined()
    await hold('1234-abcd', { body: { stands: true, words: ['Head 12 of Ferry.'], job_id: 'j' } })
    expect(server.asked.at(-1)?.body).toEqual({ head: '1234-abcd' })
    const found = view.get('[aria-label="What was found"]')
    expect(found.get('h2').text()).toBe('It stands')
    expect(found.text()).toContain('Head 12 of Ferry.')
    expect(found.get('a').attributes('href')).toBe('/jobs/j/home')
  })

  it('says loud that it does not, and leads nowhere', async () => {
    const view = await open()
    await hold('1234-abcd', { body: { stands: false, words: ['No job has this head.'], job_id: null } })
    const found = view.get('[aria-label="What was found"]')
    expect(found.get('h2').text()).toBe('It does not stand')
    expect(found.get('h2').classes()).toContain('text-out')
    expect(found.find('a').exists()).toBe(false)
  })

  it('puts away what was found before when the next is refused, at its field', async () => {
    const view = await open()
    await hold('1234-abcd', { body: { stands: true, words: [], job_id: null } })
    const problems = [{ field: 'head', message: 'A head has letters and figures.' }]
    await hold('??', { status: 422, body: { ...refusalBody('invalid', 'Put it right.'), problems } })
    expect(view.find('[aria-label="What was found"] h2').exists()).toBe(false)
    expect(view.get('input:not([type=file])').attributes('aria-invalid')).toBe('true')
    expect(view.text()).toContain('A head has letters and figures.')
  })

  it('lists what went out, and what was tried at the door in vain stands out', async () => {
    const view = await open()
    expect(view.get('[aria-labelledby=on-record] tbody').text()).toContain('proof out')
    expect(view.get('[aria-labelledby=on-record] tbody').text()).toContain('abababababab…')
    const kinds = view.findAll('[aria-labelledby=at-the-door] tbody td:nth-child(2)')
    expect(kinds.map((one) => one.classes().includes('text-out'))).toEqual([true, false])
  })

  it('shows the door to owners alone', async () => {
    network.value = { role: 'machinist' } as never
    const view = await open()
    expect(view.find('[aria-labelledby=at-the-door]').exists()).toBe(false)
    expect(server.asked.some((one) => one.path === '/api/network/log')).toBe(false)
  })
})
