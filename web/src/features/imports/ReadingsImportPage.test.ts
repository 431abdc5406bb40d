import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import ReadingsImportPage from './ReadingsImportPage.vue'

const IMPORTS = '/api/jobs/j/imports'
const row = (number: number, verdict: string, message = '') => ({
  number,
  where: `hole ${number} at 3 h`,
  words: '+54 µm',
  verdict,
  message,
})
const report = (verdicts: string[], more: object = {}) => ({
  body: {
    rows: verdicts.map((one, at) => row(at + 1, one, one === 'bad' ? 'no such hole' : '')),
    changes: [],
    taken: 0,
    ...more,
  },
})

describe('bringing readings in', () => {
  let server: FakeServer
  let page: Page
  beforeEach(async () => {
    server = aroundPage()
    server.answer('/api/jobs/j/features', { body: { features: [{ quantity: 'liner bore' }] } })
    page = await mountPage(
      ReadingsImportPage,
      {},
      { job: { name: 'Ferry' }, holes: [] } as never,
      '/jobs/j/import',
    )
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const sent = () => server.asked.filter((one) => one.path === IMPORTS)
  const choose = async (name = 'readings.csv', content = 'hole,reading') => {
    const input = page.view.get('input[type=file]')
    Object.defineProperty(input.element, 'files', { value: [new File([content], name)], configurable: true })
    await input.trigger('change')
    await settled()
  }
  const button = (text: string) => page.view.findAll('button').find((one) => one.text().startsWith(text))

  it('looks at a file as soon as it is chosen, and takes nothing before it is told to', async () => {
    server.answer(IMPORTS, report(['good', 'good', 'here already']))
    await choose()
    expect(page.view.get('h2').text()).toBe('readings.csv')
    expect(page.view.text()).toContain('3 rows: 2 good, 1 here already')
    expect(sent()).toHaveLength(1)
    server.answer(IMPORTS, report(['good', 'good', 'here already'], { taken: 2 }))
    await button('Take 2 readings')?.trigger('click')
    await settled()
    expect(page.view.get('[role=status]').text()).toContain('2 readings taken')
    expect(page.reloaded()).toBe(1)
  })

  it('shows bad rows first, and leaves them out only when that is chosen', async () => {
    server.answer(IMPORTS, report(['good', 'bad', 'good']))
    await choose()
    const verdicts = page.view.findAll('tbody tr').map((one) => one.get('b').text())
    expect(verdicts).toEqual(['bad', 'good', 'good'])
    expect(page.view.text()).toContain('1 bad')
    expect(button('Take 2')).toBeUndefined()
    await button('Leave 1 bad row out, take 2')?.trigger('click')
    await settled()
    expect(sent()).toHaveLength(2)
  })

  it('can take nothing where no row is good', async () => {
    server.answer(IMPORTS, report(['bad']))
    await choose()
    expect(button('Leave 1 bad row out')?.attributes('disabled')).toBeDefined()
  })

  it('looks anew when something is chosen that its rows mean, until they are taken', async () => {
    server.answer(IMPORTS, report(['good'], { taken: 1 }))
    await choose()
    await page.view.get('input[type=checkbox]').setValue(true)
    await settled()
    await page.view.get('select').setValue('liner bore')
    await settled()
    expect(sent()).toHaveLength(3)
    await button('Take 1 reading')?.trigger('click')
    await settled()
    await page.view.get('input[type=checkbox]').setValue(false)
    await settled()
    expect(sent()).toHaveLength(4)
  })

  it('says at the file what is wrong with it', async () => {
    const problems = [{ field: 'file', message: 'It has no head.' }]
    server.answer(IMPORTS, { status: 422, body: { ...refusalBody('invalid', 'Put it right.'), problems } })
    await choose()
    expect(page.view.get('input[type=file]').attributes('aria-invalid')).toBe('true')
    expect(page.view.text()).toContain('It has no head.')
    expect(page.view.find('tbody').exists()).toBe(false)
  })

  it('sends nothing that is larger than it may be', async () => {
    await choose('large.csv', 'x'.repeat(5_000_001))
    expect(page.view.text()).toContain('large.csv has 5.0 MB: 5 MB at most.')
    expect(sent()).toEqual([])
  })

  it('shows the first of very many rows, and says how many more there are', async () => {
    server.answer(IMPORTS, report(Array.from({ length: 402 }, () => 'good')))
    await choose()
    expect(page.view.findAll('tbody tr')).toHaveLength(400)
    expect(page.view.text()).toContain('and 2 more')
  })
})
