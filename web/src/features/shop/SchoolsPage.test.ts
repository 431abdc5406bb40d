import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { personId } from '@/shared/state/preferences'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import SchoolsPage from './SchoolsPage.vue'

const school = (chosen: string, by = '') => ({
  question: 'getting in',
  title: 'Getting the liner in',
  sides: ['press cold', 'heat and cold'].map((name) => ({
    name,
    reason: `why ${name}`,
    chosen: name === chosen,
  })),
  settled_by: 'heights read cold',
  chosen_by: by,
})

describe('the schools of the shop', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = fakeServer()
    personId.value = 'ines'
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const sides = () => page.view.findAll('[role="group"] button')

  it('show both sides with their reason, and which one is followed', async () => {
    server.answer('/api/schools', { body: [school('press cold')] })
    page = await mountPage(SchoolsPage, {})
    expect(sides().map((side) => side.attributes('aria-pressed'))).toEqual(['true', 'false'])
    expect(page.view.text()).toContain('why heat and cold')
    expect(page.view.text()).toContain('Settled by: heights read cold')
  })

  it('follow the side that is pressed, and say who chose it', async () => {
    server.answer(
      '/api/schools',
      { body: [school('press cold')] },
      { body: [school('heat and cold', 'Ines')] },
    )
    page = await mountPage(SchoolsPage, {})
    await sides()[1]?.trigger('click')
    await settled()
    expect(server.asked.at(-1)?.body).toEqual({
      question: 'getting in',
      side: 'heat and cold',
      person_id: 'ines',
    })
    expect(sides().map((side) => side.attributes('aria-pressed'))).toEqual(['false', 'true'])
    expect(page.view.text()).toContain('Chosen by Ines.')
  })

  it('say why they cannot be shown', async () => {
    server.answer('/api/schools', { status: 503, body: refusalBody('unavailable', 'The database is away.') })
    page = await mountPage(SchoolsPage, {})
    expect(page.view.find('[role="alert"]').text()).toBe('The database is away.')
  })
})
