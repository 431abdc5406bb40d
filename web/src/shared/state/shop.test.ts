import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'

import { aroundPage } from '@/testing/around'
import type { FakeServer } from '@/testing/server'

import { isOwner, loadNetwork, network, signedIn } from './network'
import { loadPeople, people, person } from './people'
import { chooseUnit, ground, personId, unit, unitOfJob } from './preferences'

describe('who is here, and what this browser chose', () => {
  let server: FakeServer
  beforeEach(() => {
    server = aroundPage()
    network.value = null
  })
  afterEach(() => {
    network.value = null
    unitOfJob.value = {}
    window.history.replaceState(null, '', '/')
    vi.unstubAllGlobals()
  })

  it('keeps who works here while they belong to the shop, else begins with the first', async () => {
    server.answer(
      '/api/people',
      {
        body: [
          { person_id: 'i', name: 'Ines' },
          { person_id: 'w', name: 'Wren' },
        ],
      },
      { body: [{ person_id: 'i', name: 'Ines' }] },
      { body: [] },
    )
    await loadPeople()
    expect(person.value?.name).toBe('Wren')
    await loadPeople()
    expect(person.value?.name).toBe('Ines')
    await loadPeople()
    expect([person.value, personId.value]).toEqual([null, ''])
  })

  it('keeps everybody it knew while the application is out of reach', async () => {
    server.answer('/api/people', 'away')
    await expect(loadPeople()).rejects.toThrow()
    expect(people.value).toHaveLength(1)
  })

  it('records under the name of whoever signed in', async () => {
    expect(isOwner.value).toBe(true)
    server.answer('/api/network', { body: { role: 'machinist', person: { person_id: 'i', name: 'Ines' } } })
    await loadNetwork()
    expect([signedIn.value?.name, personId.value, isOwner.value]).toEqual(['Ines', 'i', false])
  })

  it('keeps whoever was chosen where nobody signs in', async () => {
    server.answer('/api/network', { body: { role: 'owner', person: null } })
    await loadNetwork()
    expect([signedIn.value, personId.value, isOwner.value]).toEqual([null, 'w', true])
  })

  it('remembers a unit for the job whose address is open, and for no other', () => {
    window.history.replaceState(null, '', '/jobs/j7/protrusion/5')
    chooseUnit('µm')
    window.history.replaceState(null, '', '/calendar')
    chooseUnit('thou')
    expect(unit.value).toBe('thou')
    expect(unitOfJob.value).toEqual({ j7: 'µm' })
  })

  it('lays the ground under the whole page', async () => {
    ground.value = 'dark'
    await nextTick()
    expect(document.documentElement.dataset['ground']).toBe('dark')
    ground.value = 'light'
    await nextTick()
    expect(document.documentElement.dataset['ground']).toBe('light')
  })
})
