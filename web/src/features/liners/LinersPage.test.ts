import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import LinersPage from './LinersPage.vue'

const liner = (mark: string, hole: number | null, thickness_m: number | null = null) => ({
  liner: { liner_id: mark, mark, make: 'Hollin', batch: '7' },
  hole,
  flange: thickness_m === null ? [] : [{ land: 'flat land', thickness_m, expanded_m: 2e-6 }],
})
const block = (more: object = {}) =>
  ({
    job: { name: 'Ferry' },
    liners: [liner('L1', 1, 8.89e-3), liner('L7', null)],
    card: {
      lands: [
        ['flat land', 0, ''],
        ['lip', 254e-6, 'over the fire ring'],
      ],
    },
    setups: [],
    shims: [],
    holes: [],
    ...more,
  }) as unknown as BlockView

describe('the liners of a job', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (now = block(), query = '') => {
    page = await mountPage(LinersPage, {}, now, `/jobs/j/liners${query}`)
    return page.view
  }
  const posted = (path: string) => server.asked.filter((one) => one.path === path && one.method === 'POST')

  it('says of each where it is and how thick it is at every land', async () => {
    const view = await open()
    const heads = view.findAll('thead th').map((one) => one.text())
    expect(heads.at(-2)).toBe('flange at the flat land')
    expect(heads.at(-1)).toContain('(+10.0)')
    const [first, second] = view.findAll('tbody tr')
    expect(first?.text()).toContain('0.350')
    expect(second?.text()).toContain('on the bench')
    expect(second?.text()).toContain('not measured')
  })

  it('says what to do where there is none yet', async () => {
    const view = await open(block({ liners: [] }))
    expect(view.text()).toContain('No liner is in this job yet.')
    expect(view.find('tbody').exists()).toBe(false)
  })

  it('begins at the flange of the liner that one comes for', async () => {
    const view = await open(block(), '?liner=L7')
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Flange of L7 at the flat land')
    expect(view.findAll('tbody tr')[1]?.classes()).toContain('bg-act-wash')
  })

  it('takes a thickness typed at its land, and is empty then', async () => {
    const view = await open()
    const input = view.get('input[aria-label="Flange of L7 at the lip"]')
    await input.setValue('8.901')
    server.answer('/api/jobs/j/readings', {
      status: 201,
      body: { event: 4, reading_id: 'r', typed: '8.901', typed_unit: 'mm' },
    })
    await view.findAll('tbody tr')[1]?.findAll('form')[1]?.trigger('submit')
    await settled()
    expect(posted('/api/jobs/j/readings')[0]?.body).toMatchObject({
      quantity: 'flange thickness',
      liner_mark: 'L7',
      land: 'lip',
      text: '8.901',
      confirmed: false,
      read_before: '',
    })
    expect((input.element as HTMLInputElement).value).toBe('')
  })

  it('keeps a thickness that is asked about, and sends nothing of an empty field', async () => {
    const view = await open()
    const form = () => view.findAll('tbody tr')[1]?.findAll('form')[0]
    await form()?.trigger('submit')
    expect(posted('/api/jobs/j/readings')).toEqual([])
    const input = view.get('input[aria-label="Flange of L7 at the flat land"]')
    await input.setValue('89')
    server.answer('/api/jobs/j/readings', { status: 422, body: refusalBody('slip', 'Is 8.9 mm meant?') })
    await form()?.trigger('submit')
    await settled()
    expect((input.element as HTMLInputElement).value).toBe('89')
    expect(form()?.text()).toContain('Is 8.9 mm meant?')
  })

  it('adds one after the other: make and batch stay, the mark does not', async () => {
    const view = await open()
    const form = view.get('form[aria-label="Add a liner"]')
    const [mark, make, batch] = form.findAll('input')
    await mark?.setValue('L8')
    await make?.setValue('Hollin')
    await batch?.setValue('7')
    server.answer('/api/jobs/j/liners', { status: 201, body: {} })
    await form.trigger('submit')
    await settled()
    expect(posted('/api/jobs/j/liners')[0]?.body).toEqual({ mark: 'L8', make: 'Hollin', batch: '7' })
    const values = form.findAll('input').map((one) => (one.element as HTMLInputElement).value)
    expect(values).toEqual(['', 'Hollin', '7'])
    expect(page.reloaded()).toBe(1)
  })

  it('says why a liner was not added, with what was typed left as it is', async () => {
    const view = await open()
    const form = view.get('form[aria-label="Add a liner"]')
    await form.findAll('input')[0]?.setValue('L1')
    const problems = [{ field: 'mark', message: 'L1 is in this job already.' }]
    server.answer('/api/jobs/j/liners', {
      status: 422,
      body: { ...refusalBody('invalid', 'Put it right.'), problems },
    })
    await form.trigger('submit')
    await settled()
    expect(form.text()).toContain('L1 is in this job already.')
    expect((form.findAll('input')[0]?.element as HTMLInputElement).value).toBe('L1')
  })
})
