import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import HoursPage from './HoursPage.vue'
import { sourceWords } from './words'

const operation = (name: string, more: object = {}) => ({
  operation: name,
  title: name,
  units: 1,
  is_done: false,
  low_h: 1,
  middle_h: 2,
  high_h: 3,
  worst_h: 4,
  agreed_h: 0,
  chargeable_h: 0,
  goodwill_h: 0,
  learned_from: 0,
  ...more,
})
const stretch = (by: string, start: string, more: object = {}) => ({
  by,
  start,
  title: 'bore',
  bill: 'within what was agreed',
  hours: 1.5,
  ...more,
})
const VIEW = {
  operations: [
    operation('bore', { units: 6, agreed_h: 1, goodwill_h: 0.5, learned_from: 7 }),
    operation('wait', { middle_h: 0 }),
  ],
  planned_h: 12.3,
  worst_h: 20,
  agreed_h: 5,
  chargeable_h: 1,
  goodwill_h: 0.5,
  anomalies_min: 42.4,
  waited_d: { parts: 1, customer: 3.5 },
  worked: [
    stretch('Wren', '2026-11-20T08:00:00Z'),
    stretch('Ines', '2026-11-20T09:00:00Z', { bill: 'goodwill' }),
  ],
  running: [{ by: 'Ines', since: '2026-11-20T09:00:00Z' }],
}
const HOURS = '/api/jobs/j/hours'

describe('what a job takes and took', () => {
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
    server.answer(HOURS, { body: view })
    page = await mountPage(HoursPage, {}, { job: { name: 'Ferry' } } as never, '/jobs/j/time')
    return page.view
  }

  it('sums all that was worked, also what stands on no bill, and all days waited', async () => {
    const said = (await open()).get('p.text-lg').text()
    expect(said).toContain('6.5 of 12.3 h')
    expect(said).toContain('at worst 20.0')
    expect(said).toContain('waited 4.5 days')
    expect(said).toContain('Goodwill 0.5 h.')
    expect(said).toContain('Chargeable beside the agreement 1.0 h.')
    expect(said).toContain('42 min went into what does not add up.')
  })

  it('says nothing of what there was none of', async () => {
    const none = { goodwill_h: 0, chargeable_h: 0, anomalies_min: 0, waited_d: {} }
    const view = await open({ ...VIEW, ...none })
    expect(view.get('p.text-lg').text()).not.toMatch(/Goodwill|Chargeable|add up/)
    expect(view.find('[aria-labelledby=waited]').exists()).toBe(false)
  })

  it('has a row for each operation: what it took, and where its plan comes from', async () => {
    const rows = (await open()).findAll('[aria-label="Hours by operation"] tbody tr').map((one) => one.text())
    expect(rows[0]).toContain('bore, 6 holes')
    expect(rows[0]).toContain('1.50')
    expect(rows[0]).toContain('own log, 7')
    expect(rows[1]).toContain('waiting, no work')
    expect(sourceWords({ learned_from: 0, middle_h: 1 })).toBe('common practice')
  })

  it('lists the longest wait first, and the newest work, with what runs now', async () => {
    const view = await open()
    expect(view.findAll('[aria-labelledby=waited] li').map((one) => one.text())).toEqual([
      'customer3.5 d',
      'parts1.0 d',
    ])
    const [newest, before] = view.findAll('[aria-labelledby=stretches] li').map((one) => one.text())
    expect(newest).toContain('Ines')
    expect(newest).toContain('(goodwill)')
    expect(newest).toContain('1.50 h, runs')
    expect(before).not.toContain('runs')
  })

  it('adds work that no clock ran for, from the hour of this place', async () => {
    const view = await open()
    const form = view.get('form[aria-labelledby=add-work]')
    expect(form.get('button').attributes('disabled')).toBeDefined()
    await form.get('input[type=date]').setValue('2026-11-19')
    await form.get('input[type=time]').setValue('13:30')
    await form.get('input[type=text]').setValue('1,25')
    server.answer('/api/jobs/j/route/worked', { status: 201, body: VIEW })
    await form.trigger('submit')
    await settled()
    const sent = server.asked.find((one) => one.method === 'POST')
    expect(sent?.body).toMatchObject({
      operation: 'bore',
      hours: 1.25,
      bill: 'within what was agreed',
      person_id: 'w',
    })
    expect((sent?.body as { started: string }).started).toBe(new Date('2026-11-19T13:30').toISOString())
    expect((form.get('input[type=text]').element as HTMLInputElement).value).toBe('')
  })

  it('keeps hours that are refused, and says why at their field', async () => {
    const view = await open()
    const form = view.get('form[aria-labelledby=add-work]')
    await form.get('input[type=text]').setValue('99')
    const problems = [{ field: 'hours', message: 'A day has twenty-four.' }]
    server.answer('/api/jobs/j/route/worked', {
      status: 422,
      body: { ...refusalBody('invalid', 'Put it right.'), problems },
    })
    await form.trigger('submit')
    await settled()
    expect((form.get('input[type=text]').element as HTMLInputElement).value).toBe('99')
    expect(form.text()).toContain('A day has twenty-four.')
  })
})
