import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { personId } from '@/shared/state/preferences'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import TakeInPage from './TakeInPage.vue'

const layout = {
  arrangement: 'in-line',
  holes: 2,
  heads: [[1, 2]],
  numbering: 'number one at the front, counted back',
  twelve_o_clock: 'the exhaust side',
  bore_pitch_m: 0.1,
  bore_m: 0.08,
  bank_angle_deg: null,
  banks: [],
  bank_offset_m: 0,
}
const card = { name: 'Twin', engine: 'Twin', layout, version: { spec_card_id: 'c1', version: 3 } }

describe('taking an engine in', () => {
  let server: FakeServer
  let page: Page

  beforeEach(async () => {
    localStorage.clear()
    server = fakeServer()
    personId.value = 'ines'
    server.answer('/api/spec-cards', { body: [card] })
    page = await mountPage(TakeInPage, {})
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const field = (at: number) => page.view.findAll('input')[at]
  const sent = () => server.asked.filter((one) => one.method === 'POST')

  it('asks for a card before anything is sent, at its own field', async () => {
    await field(0)?.setValue('26-9')
    await page.view.find('form').trigger('submit')
    await settled()
    expect(sent()).toEqual([])
    expect(page.view.find('[role="alert"]').text()).toContain('Choose the spec card')
    expect(page.view.find('select').attributes('aria-invalid')).toBe('true')
    expect((field(0)?.element as HTMLInputElement).value).toBe('26-9')
  })

  it('offers the cards with their version, and shows how the holes are numbered', async () => {
    expect(page.view.find('select').text()).toContain('Twin · 2 holes · version 3')
    expect(page.view.find('[aria-label="Numbering"]').text()).toContain('Choose a spec card')
    await page.view.find('select').setValue('c1')
    expect(page.view.find('[aria-label="Numbering"]').text()).not.toContain('Choose a spec card')
  })

  it('takes the engine in, forgets what was typed, and goes on to its grid', async () => {
    await field(0)?.setValue('26-9')
    await field(1)?.setValue('Boat')
    await page.view.find('select').setValue('c1')
    server.answer('/api/jobs', { status: 201, body: { job_id: 'j9' } })
    await page.view.find('form').trigger('submit')
    await settled()
    expect(sent()[0]?.body).toMatchObject({
      number: '26-9',
      name: 'Boat',
      spec_card_id: 'c1',
      person_id: 'ines',
    })
    expect(page.router.currentRoute.value).toMatchObject({ name: 'grid', params: { job: 'j9' } })
    expect((field(0)?.element as HTMLInputElement).value).toBe('')
  })

  it('says at its field what is refused, and loses nothing', async () => {
    await field(0)?.setValue('26-9')
    await page.view.find('select').setValue('c1')
    const body = {
      ...refusalBody('taken', 'Job number 26-9 is taken.'),
      problems: [{ field: 'number', message: 'taken' }],
    }
    server.answer('/api/jobs', { status: 409, body })
    await page.view.find('form').trigger('submit')
    await settled()
    expect(field(0)?.attributes('aria-invalid')).toBe('true')
    expect((field(0)?.element as HTMLInputElement).value).toBe('26-9')
    expect(JSON.parse(localStorage.getItem('vallo-take-in') ?? '{}')).toMatchObject({
      number: '26-9',
      card: 'c1',
    })
  })
})
