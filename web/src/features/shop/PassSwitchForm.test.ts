import { mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import PassSwitchForm from './PassSwitchForm.vue'

const LIVE = { simulated: false, state: 'live', message: '', taps: 3 }

describe('the switch that ends a pass', () => {
  let server: FakeServer
  let view: VueWrapper
  beforeEach(async () => {
    server = fakeServer()
    server.answer('/api/pass-switch', { body: null })
    view = mount(PassSwitchForm)
    await settled()
  })
  afterEach(() => {
    view.unmount()
    vi.unstubAllGlobals()
  })
  const listen = async (url: string) => {
    await view.find('input').setValue(url)
    await view.find('form').trigger('submit')
    await settled()
  }

  it('says what ends a pass where there is none', () => {
    expect(view.find('[role=status]').text()).toContain('space, the pedal or a tap')
  })

  it('is listened to at its address, and told as it stands then', async () => {
    server.answer('/api/pass-switch', { body: LIVE })
    await listen('socket://127.0.0.1:8435')
    expect(server.asked.find((one) => one.method === 'POST')?.body).toEqual({
      url: 'socket://127.0.0.1:8435',
    })
    expect(view.find('[role=status]').text()).toBe('A switch is live, pressed 3 times so far.')
    expect((view.find('input').element as HTMLInputElement).value).toBe('')
  })

  it('that does not answer says why', async () => {
    server.answer('/api/pass-switch', {
      body: { ...LIVE, state: 'lost', message: 'No switch at /dev/ttyUSB0' },
    })
    await listen('/dev/ttyUSB0')
    expect(view.find('[role=status]').text()).toBe('A switch is set up. No switch at /dev/ttyUSB0.')
  })

  it('keeps an address that is refused, with the reason at its field', async () => {
    const body = {
      ...refusalBody('not usable', 'Type where the switch sends.'),
      problems: [{ field: 'url', message: 'Type where the switch sends.' }],
    }
    server.answer('/api/pass-switch', { status: 422, body })
    await listen('somewhere')
    expect((view.find('input').element as HTMLInputElement).value).toBe('somewhere')
    expect(view.find('input').attributes('aria-invalid')).toBe('true')
    expect(view.text()).toContain('Type where the switch sends.')
  })
})
