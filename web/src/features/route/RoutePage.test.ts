import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, RouteView } from '@/api/generated'
import { people } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'
import { type Page, mountPage } from '@/testing/page'
import { atHoles, hold, operation, route, school, wait } from '@/testing/route'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import RoutePage from './RoutePage.vue'

const ROUTE = '/api/jobs/j/route'
const block = {
  card: { construction: 'wet liner, top flange' },
  holes: [{ number: 1 }, { number: 2 }],
} as unknown as BlockView

describe('the route of a job', () => {
  let server: FakeServer
  let page: Page

  beforeEach(() => {
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
    server = fakeServer()
    people.value = [{ person_id: 'wren', name: 'Wren' }]
    personId.value = 'wren'
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  async function open(now: RouteView, address = '/jobs/j/route'): Promise<void> {
    server.answer(ROUTE, { body: now })
    page = await mountPage(RoutePage, {}, block, address)
  }
  const text = () => page.view.text().replace(/\s+/g, ' ')
  const button = (name: RegExp) => {
    const found = page.view.findAll('button').find((one) => name.test(one.text()))
    if (!found) throw new Error(`no button ${String(name)} in ${text()}`)
    return found
  }
  const sent = () => server.asked.filter((one) => one.method === 'POST')

  it('says what was worked and waited, what is in the way and what comes next', async () => {
    await open(route({ waits: [wait()], holds: [hold('fit', 'waits', { hole: 2 })] }))
    expect(text()).toContain('Worked 3.0 of 8.0 h')
    expect(text()).toContain('waited 4.0 days')
    expect(text()).toContain('Blocked: piston 3.')
    expect(text()).toContain('Next on this job')
    expect(text()).toContain('Fit of hole 2: 2.0 h')
    expect(page.view.find('[aria-label="Hold points"]').text()).toContain(
      'the piston of hole 1 is not measured',
    )
  })

  it('says why it is not there', async () => {
    server.answer(ROUTE, { status: 404, body: refusalBody('not found', 'There is no such job.') })
    page = await mountPage(RoutePage, {}, block)
    expect(text()).toContain('There is no such job.')
  })

  it('shows the operation an address names, and goes to another by its column', async () => {
    await open(route(), '/jobs/j/route?at=deck')
    expect(text()).toContain('This cannot be undone.')
    const wash = page.view
      .findAll('[role="button"]')
      .find((one) => /^Wash/.test(one.attributes('aria-label') ?? ''))
    await wash?.trigger('keydown.enter')
    await settled()
    expect(page.router.currentRoute.value.query['at']).toBe('wash')
    expect(page.view.find('form[aria-label="Mark it"]').text()).toContain('plugs out')
  })

  it('marks an operation with its words and count, and forgets them once it is done', async () => {
    await open(route(), '/jobs/j/route?at=wash')
    const form = page.view.find('form[aria-label="Mark it"]')
    const [words, count] = form.findAll('input')
    await words?.setValue('hot tank')
    await count?.setValue('9')
    server.answer(`${ROUTE}/marks`, { status: 201, body: { job_id: 'j' } })
    await form.trigger('submit')
    await settled()
    expect(sent()[0]?.body).toMatchObject({
      operation: 'wash',
      hole: null,
      kind: 'done',
      words: 'hot tank',
      count: 9,
    })
    expect((words?.element as HTMLInputElement).value).toBe('')
  })

  it('asks for a reason at a hold point, keeps what was typed, and sends both', async () => {
    await open(route(), '/jobs/j/route?at=deck')
    const form = page.view.find('form[aria-label="Mark it"]')
    await form.find('input').setValue('0.2 mm')
    server.answer(
      `${ROUTE}/marks`,
      { status: 409, body: refusalBody('hold point', 'Hold point. Common causes first.') },
      { status: 201, body: { job_id: 'j' } },
    )
    await form.trigger('submit')
    await settled()
    expect(page.view.find('[role="alert"]').text()).toContain('Common causes first.')
    expect((form.find('input').element as HTMLInputElement).value).toBe('0.2 mm')
    expect(button(/^Pass it as Wren/).attributes('disabled')).toBeDefined()
    await page.view.find('[role="alert"] input').setValue('lip found')
    await button(/^Pass it as Wren/).trigger('click')
    await settled()
    expect(sent()[1]?.body).toMatchObject({ words: '0.2 mm', hold_reason: 'lip found' })
    expect(page.view.find('[role="alert"]').exists()).toBe(false)
  })

  it('says what is wrong where it is no hold point', async () => {
    await open(route(), '/jobs/j/route?at=wash')
    server.answer(`${ROUTE}/marks`, { status: 422, body: refusalBody('wrong', 'Count the plugs out.') })
    await page.view.find('form[aria-label="Mark it"]').trigger('submit')
    await settled()
    expect(page.view.find('[role="alert"]').text()).toBe('Count the plugs out.')
  })

  it('marks the hole that is chosen, lets another look it over, and opens it again', async () => {
    const bore = operation('bore', {
      scope: 'hole',
      irreversible: true,
      holes: atHoles({ 1: 'in', 2: 'not measured' }),
    })
    await open(route({ operations: [bore], next: 'bore' }))
    server.answer(`${ROUTE}/marks`, { status: 201, body: { job_id: 'j' } })
    expect(button(/^Mark/).text()).toBe('Mark hole 2 done')
    await button(/^I looked it over/).trigger('click')
    await settled()
    await button(/^1$/).trigger('click')
    await button(/^To be done again/).trigger('click')
    await settled()
    expect(sent().map((one) => one.body)).toMatchObject([
      { operation: 'bore', hole: 2, kind: 'looked over' },
      { operation: 'bore', hole: 1, kind: 'to be done again' },
    ])
  })

  it('runs the clock by button and by pedal, for who is at work', async () => {
    server.answer(`${ROUTE}/clock`, { status: 201, body: { job_id: 'j' } })
    await open(route())
    await button(/^Begin/).trigger('click')
    await settled()
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'PageDown', cancelable: true }))
    await settled()
    expect(sent().map((one) => one.body)).toMatchObject([
      { operation: 'fit', running: true, person_id: 'wren' },
      { operation: 'fit', running: true },
    ])
  })

  it('stops the clock that runs for who is at work', async () => {
    const running = [{ by: 'Wren', operation: 'fit' as const, title: 'Fit', since: '2026-11-20T10:00:00Z' }]
    await open(route({ clocks: { ...route().clocks, running } }))
    server.answer(`${ROUTE}/clock`, { status: 201, body: { job_id: 'j' } })
    await button(/^Stop the clock/).trigger('click')
    await settled()
    expect(sent()[0]?.body).toMatchObject({ running: false })
    expect(text()).toContain('runs: Wren')
  })

  it('says what a school changes before it is followed, and asks why', async () => {
    await open(route())
    const change = { added: ['Heat'], removed: [], moved: [], hours: 0.5, holds: [] }
    server.answer(`${ROUTE}/schools`, { body: change })
    await button(/^heat and cold/).trigger('click')
    await settled()
    expect(sent()[0]?.body).toMatchObject({
      question: 'getting in',
      side: 'heat and cold',
      only_preview: true,
    })
    const dialog = document.querySelector('[role="dialog"]')
    expect(dialog?.textContent).toContain('comes: Heat')
    const field = dialog?.querySelector('input') as HTMLInputElement
    field.value = 'aluminium'
    field.dispatchEvent(new Event('input'))
    await settled()
    dialog?.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }))
    await settled()
    expect(sent()[1]?.body).toMatchObject({ reason: 'aluminium', only_preview: false })
    expect(document.querySelector('[role="dialog"]')).toBeNull()
  })

  it('does not ask about the side that is followed already', async () => {
    await open(route({ schools: [school()] }))
    await button(/^press cold/).trigger('click')
    await settled()
    expect(sent()).toEqual([])
  })

  it('says what is waited for and that it has come', async () => {
    await open(
      route({ waits: [wait(), wait({ wait_id: 'w2', words: 'shims', ended: '2026-11-22T10:00:00Z' })] }),
    )
    const waits = page.view.find('[aria-label="What waits"]')
    expect(waits.text()).toContain('due Tue 8 Dec')
    server.answer(`${ROUTE}/waits/w1/end`, { status: 201, body: { job_id: 'j' } })
    await button(/^It is here/).trigger('click')
    await settled()
    expect(sent()[0]?.path).toBe(`${ROUTE}/waits/w1/end`)
    const form = page.view.find('form[aria-label="Wait"]')
    server.answer(`${ROUTE}/waits`, { status: 201, body: { job_id: 'j' } })
    await form.find('input[type="text"]').setValue('the crane')
    await form.trigger('submit')
    await settled()
    expect(sent()[1]?.body).toMatchObject({
      operation: 'fit',
      cause: 'part',
      words: 'the crane',
      since: null,
    })
  })

  it('lists what is to be read again with what disturbed it', async () => {
    const again = {
      quantity: 'protrusion' as const,
      part: 'hole-1',
      title: 'hole 1, liner L1',
      holes: [1],
      because: 'deck the block',
      since: '2026-11-20T10:00:00Z',
      by: 'Ines',
      hours: 0.15,
    }
    await open(route({ reopened: [again] }))
    const list = page.view.find('[aria-label="Read again"]')
    expect(list.text().replace(/\s+/g, ' ')).toContain('deck the block since, by Ines; 0.15 h')
    expect(list.find('a').attributes('href')).toContain('/jobs/j/survey')
  })
})
