import { mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { people } from '@/shared/state/people'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import PeopleList from './PeopleList.vue'

describe('people of the shop', () => {
  let server: FakeServer
  let view: VueWrapper
  beforeEach(() => {
    localStorage.clear()
    server = fakeServer()
    people.value = []
  })
  afterEach(() => {
    view.unmount()
    vi.unstubAllGlobals()
  })
  const add = async (name: string) => {
    await view.find('input').setValue(name)
    await view.find('form').trigger('submit')
    await settled()
  }

  it('say what to do where nobody is here yet', () => {
    view = mount(PeopleList)
    expect(view.text()).toContain('Nobody is here yet.')
  })

  it('are joined by a name, which is forgotten once it is there', async () => {
    view = mount(PeopleList)
    server.answer('/api/people', { body: [{ person_id: 'p', name: 'Wren' }] })
    await add('Wren')
    expect(server.asked[0]).toMatchObject({ method: 'POST', body: { name: 'Wren' } })
    expect(view.findAll('li').map((one) => one.text())).toEqual(['Wren'])
    expect((view.find('input').element as HTMLInputElement).value).toBe('')
  })

  it('keep a name that is refused, with the reason at its field', async () => {
    view = mount(PeopleList)
    const body = {
      ...refusalBody('taken', 'There is a Wren.'),
      problems: [{ field: 'name', message: 'There is a Wren.' }],
    }
    server.answer('/api/people', { status: 409, body })
    await add('Wren')
    expect(view.text()).toContain('There is a Wren.')
    expect((view.find('input').element as HTMLInputElement).value).toBe('Wren')
    expect(view.find('input').attributes('aria-invalid')).toBe('true')
  })
})
