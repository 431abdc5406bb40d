import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { HolePlanView, HoleView, LinerView } from '@/api/generated'
import { personId, unit } from '@/shared/state/preferences'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import CutForm from './CutForm.vue'
import FitForm from './FitForm.vue'

const hole = (more: Partial<HoleView> = {}): HoleView =>
  ({
    hole_id: 'h5',
    number: 5,
    liner: null,
    last_cut: null,
    need: { action: 'fit' },
    marks: [],
    parts: { ledge_depths: [] },
    ...more,
  }) as unknown as HoleView
const block = { card: { unit: 'mm', required_hours: [12, 3, 6, 9] }, holes: [hole()] } as unknown as object
const plan = {
  liner_mark: 'L6',
  plan: { depth_m: 8.898e-3, passes: 2, part_pass_m: 5e-6, shim_typed: '0.10' },
} as unknown as HolePlanView
const liner = (mark: string, at: number | null = null): LinerView => ({
  liner: { liner_id: mark, mark, make: 'Pellerby', batch: '' },
  hole: at,
  flange: [],
})

describe('what is recorded of a hole', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    localStorage.clear()
    server = fakeServer()
    personId.value = 'wren'
    unit.value = 'µm'
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const form = () => page.view.find('form')
  const inputs = () => form().findAll('input:not([type="checkbox"])')
  const value = (at: number) => (inputs()[at]?.element as HTMLInputElement).value
  const sent = () => server.asked.filter((one) => one.path.startsWith('/api/holes')).map((one) => one.body)
  const submit = async () => {
    await form().trigger('submit')
    await settled()
  }

  describe('a cut', () => {
    const CUTS = '/api/holes/h5/cuts'
    const open = async () => (page = await mountPage(CutForm, { hole: hole(), plan }, block))

    it('starts from what was planned, the rest of a pass counted as one', async () => {
      await open()
      expect([value(0), value(1), value(2)]).toEqual(['8.898', '3', '0.10 mm'])
    })

    it('is sent as it was cut, and goes on to the ledge', async () => {
      await open()
      await inputs()[0]?.setValue('8.905')
      server.answer(CUTS, { status: 201, body: { job_id: 'j' } })
      await submit()
      expect(sent()[0]).toMatchObject({ depth: '8.905', depth_unit: 'mm', passes: '3', person_id: 'wren' })
      expect(page.reloaded()).toBe(1)
      expect(page.router.currentRoute.value.params['lens']).toBe('counterbore')
    })

    it('asks back where it would stand outside, keeps what was typed, and takes it as cut', async () => {
      await open()
      const asks = {
        ...refusalBody('asks', 'That predicts 300 µm.'),
        suggestions: [{ label: 'Record it as cut', text: '', confirm: true }],
      }
      server.answer(CUTS, { status: 409, body: asks }, { status: 201, body: { job_id: 'j' } })
      await submit()
      expect(value(0)).toBe('8.898')
      await page.view
        .findAll('button')
        .find((one) => one.text() === 'Record it as cut')
        ?.trigger('click')
      await settled()
      const [first, second] = sent() as { cut_id: string; confirmed: boolean }[]
      expect([first?.confirmed, second?.confirmed]).toEqual([false, true])
      expect(first?.cut_id).toBe(second?.cut_id)
    })

    it('is passed at a hold point with a reason', async () => {
      await open()
      server.answer(
        CUTS,
        { status: 409, body: refusalBody('hold point', 'Hold point. No datum.') },
        { status: 201, body: { job_id: 'j' } },
      )
      await submit()
      const held = page.view.find('[role="alert"]')
      await held.find('input').setValue('the deck it is')
      await held.find('button').trigger('click')
      await settled()
      expect(sent()[1]).toMatchObject({ hold_reason: 'the deck it is' })
    })
  })

  describe('a fit', () => {
    const FITS = '/api/holes/h5/fittings'
    const cut = { cut_id: 'c', shim_um: '100', typed: '8.898' } as HoleView['last_cut']
    const open = async (more: Partial<HoleView> = {}, liners = [liner('L6'), liner('L7', 2)]) =>
      (page = await mountPage(FitForm, { hole: hole(more), liners, plan }, block))

    it('starts with the liner and the shim it was cut for, its thickness left to be measured', async () => {
      await open({ last_cut: cut })
      expect((form().find('select').element as HTMLSelectElement).value).toBe('L6')
      expect([value(0), value(1)]).toEqual(['0.100 mm', ''])
    })

    it('sends what was looked at before it went in', async () => {
      await open()
      const ticks = form().findAll('input[type="checkbox"]')
      expect(ticks).toHaveLength(3)
      for (const tick of ticks) await tick.setValue(true)
      server.answer(FITS, { status: 201, body: { job_id: 'j' } })
      await submit()
      expect(sent()[0]).toMatchObject({
        liner_mark: 'L6',
        ready: ['clean and dry', 'lead-in and seals', 'marked, right way round'],
        exchange: false,
      })
      expect(page.router.currentRoute.value.params['lens']).toBe('protrusion')
    })

    it('says what an exchange does before it is made', async () => {
      await open({ liner: { liner_id: 'L6', mark: 'L6', make: '', batch: '' } })
      await form().find('select').setValue('L7')
      expect(form().text()).toContain('L7 is in hole 2. L6 goes into hole 2, on the shims that lie there.')
      server.answer(FITS, { status: 201, body: { job_id: 'j' } })
      await submit()
      expect(sent()[0]).toMatchObject({ liner_mark: 'L7', exchange: true })
    })

    it('adds shims up to four and leaves one out', async () => {
      await open()
      const add = () => page.view.findAll('button').find((one) => one.text() === 'Add a shim')
      for (let count = 0; count < 4; count++) await add()?.trigger('click')
      expect(add()).toBeUndefined()
      await page.view
        .findAll('button')
        .find((one) => one.text() === 'Leave this shim out')
        ?.trigger('click')
      expect(inputs()).toHaveLength(6)
    })

    it('puts the answer into the field that was asked about', async () => {
      await open()
      await page.view
        .findAll('button')
        .find((one) => one.text() === 'Add a shim')
        ?.trigger('click')
      await inputs()[0]?.setValue('.003')
      const asks = {
        ...refusalBody('asks', 'Did you mean inches?'),
        problems: [{ field: 'shims.0.nominal', message: 'inches?' }],
        suggestions: [{ label: '.003 inch', text: '.003 inch', confirm: false }],
      }
      server.answer(FITS, { status: 409, body: asks }, { status: 201, body: { job_id: 'j' } })
      await submit()
      await page.view
        .findAll('button')
        .find((one) => one.text() === '.003 inch')
        ?.trigger('click')
      await settled()
      expect(sent()[1]).toMatchObject({ shims: [{ nominal: '.003 inch' }] })
    })

    it('records a liner as drawn by itself', async () => {
      await open({ liner: { liner_id: 'L6', mark: 'L6', make: '', batch: '' } })
      server.answer('/api/holes/h5/draw', { status: 201, body: { job_id: 'j' } })
      await page.view
        .findAll('button')
        .find((one) => one.text().includes('as drawn'))
        ?.trigger('click')
      await settled()
      expect(sent()).toEqual([{ person_id: 'wren' }])
      expect(page.reloaded()).toBe(1)
    })
  })
})
