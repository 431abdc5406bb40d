import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, RunView } from '@/api/generated'
import { people } from '@/shared/state/people'
import { personId, unit } from '@/shared/state/preferences'
import { type Page, mountPage } from '@/testing/page'
import { atHole, CHECKS, run } from '@/testing/run'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import CutRunPage from './CutRunPage.vue'

const HERE = '/api/holes/h5/cut-run'
const PASSES = '/api/holes/h5/cut-runs/r/passes'
const block = {
  job: { name: 'Ferry' },
  holes: [{ hole_id: 'h5', number: 5, state: 'out' }],
} as unknown as BlockView

describe('a run', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    localStorage.clear()
    localStorage.setItem('vallo-read-back', 'off')
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
    server = fakeServer()
    server.answer('/api/pass-switch', { body: null })
    people.value = [{ person_id: 'wren', name: 'Wren' }]
    personId.value = 'wren'
    unit.value = 'µm'
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  async function open(now: RunView | null): Promise<void> {
    server.answer(HERE, { body: atHole(now) })
    page = await mountPage(CutRunPage, {}, block, '/jobs/j/cut-run/x/5')
  }
  const text = () => page.view.text().replace(/\s+/g, ' ')
  const button = (name: RegExp) => {
    const found = page.view.findAll('button').find((one) => name.test(one.text()))
    if (!found) throw new Error(`no button ${String(name)} in ${text()}`)
    return found
  }
  const sent = (path: string) =>
    server.asked.filter((one) => one.method === 'POST' && one.path.endsWith(path))
  const space = async () => {
    window.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }))
    await settled()
  }

  it('shows the count, what is to go, where to stop, and what comes', async () => {
    await open(run())
    expect(text()).toContain('Hole 5: pass 9 is turning')
    expect(page.view.find('[aria-label="Passes done"]').text()).toBe('8')
    expect(text()).toContain('of 23')
    expect(text()).toContain('290')
    expect(text()).toContain('4 h')
    expect(text()).toContain('Vacuum after pass 10')
    expect(text()).toContain('Local rules and licensed practice come first.')
  })

  it('names the pass that a tap ends, and moves only when it is on record', async () => {
    await open(run())
    server.answer(PASSES, { status: 201, body: atHole(run({ count: 9, to_go_m: 270e-6 })) })
    server.answer(HERE, { body: atHole(run({ count: 9, to_go_m: 270e-6 })) })
    await space()
    expect(sent('/passes')[0]?.body).toMatchObject({ number: 9, person_id: 'wren' })
    expect(page.view.find('[aria-label="Passes done"]').text()).toBe('9')
    expect(text()).toContain('Pass 9 is on record.')
  })

  it('says of the second of two taps that it was not counted', async () => {
    await open(run())
    server.answer(PASSES, {
      status: 409,
      body: refusalBody('stale', 'Not counted: pass 9 is counted already.'),
    })
    await space()
    expect(text()).toContain('Not counted: pass 9 is counted already.')
    expect(page.view.find('[aria-label="Passes done"]').text()).toBe('8')
  })

  it('keeps the count where the link is down', async () => {
    await open(run())
    server.answer(PASSES, 'away')
    await button(/Pass 9 done/).trigger('click')
    await settled()
    expect(page.view.find('[aria-label="Passes done"]').text()).toBe('8')
  })

  it('turns nothing while it is stopped', async () => {
    await open(run())
    server.answer(/marks$/, { status: 201, body: atHole(run()) })
    await button(/^Stop$/).trigger('click')
    await settled()
    expect(sent('/marks')[0]?.body).toMatchObject({ kind: 'stopped' })
    await space()
    expect(sent('/passes')).toHaveLength(0)
    expect(button(/Go on/).exists()).toBe(true)
  })

  it('ticks the checks one after the other with the pedal before the first pass', async () => {
    const checks = CHECKS.map((kind, at) => ({ kind, done_by: at === 0 ? 'Wren' : '' }))
    await open(run({ state: 'checks before the first pass', count: 0, checks }))
    expect(text()).toContain('before the first pass')
    server.answer(/marks$/, { status: 201, body: atHole(run()) })
    await space()
    expect(sent('/marks')[0]?.body).toMatchObject({ kind: 'bolts by hand, then torque while turning' })
    expect(sent('/passes')).toHaveLength(0)
  })

  it('goes on from a measured depth', async () => {
    await open(run({ state: 'stop and measure', count: 20, to_go_m: 50e-6 }))
    expect(text()).toContain('Stop and measure.')
    server.answer(/marks$/, { status: 201, body: atHole(run({ measured_m: 9.243e-3 })) })
    const form = page.view.find('form[aria-label="Measured"]')
    await form.find('input').setValue('9.243')
    await form.trigger('submit')
    await settled()
    expect(sent('/marks')[0]?.body).toMatchObject({ kind: 'measured on the way', depth: '9.243 mm' })
  })

  it('says what count and stop mean where they disagree, and is finished', async () => {
    const says = { text: 'All 23 passes are counted, and the stop is not reached.', terms: [] }
    await open(run({ state: 'count is done', count: 23, of: 23, agree: false, says, may_be: [says] }))
    expect(page.view.find('[role="alert"]').text()).toContain('the stop is not reached')
    server.answer(/finish$/, { status: 201, body: { job_id: 'j' } })
    await button(/Stop reached: finish/).trigger('click')
    await settled()
    expect(sent('/finish')).toHaveLength(1)
    expect(page.router.currentRoute.value.name).toBe('cut')
  })

  it('begins a run, past a hold point with a reason', async () => {
    await open(null)
    server.answer(
      '/api/holes/h5/cut-runs',
      { status: 409, body: refusalBody('hold point', 'Hold point. No crack check.') },
      { status: 201, body: { job_id: 'j' } },
    )
    await button(/Begin the run/).trigger('click')
    await settled()
    const held = page.view.find('[role="alert"]')
    await held.find('input').setValue('dye is coming')
    await held.find('button').trigger('click')
    await settled()
    expect(sent('/cut-runs')[1]?.body).toMatchObject({ hold_reason: 'dye is coming' })
  })
})
