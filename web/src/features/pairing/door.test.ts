import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { network } from '@/shared/state/network'
import { personId } from '@/shared/state/preferences'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import PairPage from './PairPage.vue'
import SignInPage from './SignInPage.vue'

const OUTSIDE = { at_this_machine: false, device: null, role: 'machinist', person: null, sign_in: [] }
const WREN = { person_id: 'w', name: 'Wren' }
const INES = { person_id: 'i', name: 'Ines' }

describe('at the door', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
    server.answer('/api/people', { body: [WREN, INES] })
    server.answer('/api/features', { body: [] })
  })
  afterEach(() => {
    page.view.unmount()
    network.value = null
    vi.unstubAllGlobals()
  })
  const posted = () => server.asked.filter((one) => one.method === 'POST')
  const field = (label: string) => {
    const found = page.view.findAll('label').find((one) => one.text().startsWith(label))
    return page.view.get(`#${found?.attributes('for') ?? 'none'}`)
  }
  const submit = async () => {
    await page.view.get('form').trigger('submit')
    await settled()
  }

  describe('a device', () => {
    const open = async (view: object, address = '/pair') => {
      server.answer('/api/network', { body: view })
      page = await mountPage(PairPage, {}, null, address)
    }

    it('is let in by the code of its address, and goes where it was going', async () => {
      await open(OUTSIDE, '/pair?to=/calendar#4K7P-9TXM')
      expect((field('Code').element as HTMLInputElement).value).toBe('4K7P-9TXM')
      server.answer('/api/network/devices', { status: 201, body: {} })
      await submit()
      expect(posted()[0]?.body).toMatchObject({ code: '4K7P-9TXM', device: 'Another screen' })
      expect(page.router.currentRoute.value.fullPath).toBe('/calendar')
    })

    it('has the certificate to compare where the shop made its own', async () => {
      await open(OUTSIDE, '/pair#4K7P-9TXM.AB:CD')
      expect(page.view.text()).toContain('AB:CD')
      page.view.unmount()
      await open(OUTSIDE)
      expect(page.view.text()).not.toContain('certificate')
    })

    it('is told at the code what is wrong with it, and stays', async () => {
      await open(OUTSIDE)
      expect(page.view.get('button').attributes('disabled')).toBeDefined()
      await field('Code').setValue('1234')
      const problems = [{ field: 'code', message: 'No such code: they last ten minutes.' }]
      server.answer('/api/network/devices', {
        status: 422,
        body: { ...refusalBody('invalid', 'Put it right.'), problems },
      })
      await submit()
      expect(field('Code').attributes('aria-invalid')).toBe('true')
      expect(page.view.text()).toContain('they last ten minutes')
      expect((field('Code').element as HTMLInputElement).value).toBe('1234')
    })

    it('needs no code at the machine itself', async () => {
      await open({ ...OUTSIDE, at_this_machine: true })
      expect(page.view.find('form').exists()).toBe(false)
      expect(page.view.text()).toContain('It is let in already')
    })
  })

  describe('a person', () => {
    const open = async (view: object, address = '/sign-in') => {
      server.answer('/api/network', { body: view })
      page = await mountPage(SignInPage, {}, null, address)
    }
    const ASKED = { ...OUTSIDE, sign_in: [INES, WREN] }

    it('is the one who worked here last, and signs in by a password', async () => {
      await open(ASKED, '/sign-in?to=/shop/record')
      expect((field('Name').element as HTMLSelectElement).value).toBe('w')
      expect(page.view.get('button').attributes('disabled')).toBeDefined()
      await field('Password').setValue('a long sentence')
      server.answer('/api/sign-in', { status: 201, body: {} })
      server.answer('/api/network', { body: { ...ASKED, person: INES } })
      await submit()
      expect(posted()[0]?.body).toEqual({ of: 'w', password: 'a long sentence' })
      expect(personId.value).toBe('i')
      expect(page.router.currentRoute.value.fullPath).toBe('/shop/record')
    })

    it('types a password anew after a wrong one: it is kept nowhere', async () => {
      await open(ASKED)
      await field('Password').setValue('wrong')
      server.answer('/api/sign-in', {
        status: 403,
        body: refusalBody('forbidden', 'Name and password do not go together.'),
      })
      await submit()
      expect(page.view.text()).toContain('do not go together')
      expect((field('Password').element as HTMLInputElement).value).toBe('')
      expect(page.router.currentRoute.value.path).toBe('/sign-in')
    })

    it('is not asked where the shop asks nobody, or is signed in', async () => {
      await open(OUTSIDE)
      expect(page.view.text()).toContain('Nobody is asked to sign in here')
      page.view.unmount()
      await open({ ...ASKED, person: WREN })
      expect(page.view.text()).toContain('Wren is signed in')
      expect(page.view.find('form').exists()).toBe(false)
    })
  })
})
