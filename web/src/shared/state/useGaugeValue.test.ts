import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type Ref, ref } from 'vue'

import type { TipBody } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, refusalBody } from '@/testing/server'

import { type GaugeNow, useGaugeAt } from './useGaugeValue'

const LINK = '/api/gauges/g/link'
const TIP = '/api/gauges/g/tip'
const says = (more: object = {}) => ({
  body: {
    state: 'live',
    text: '+0.0540 mm',
    value_m: 54e-6,
    age_s: 0,
    simulated: false,
    rocked: null,
    ...more,
  },
})

describe('what the gauge in hand says', () => {
  let server: FakeServer
  let page: Mounted<GaugeNow>
  let tip: Ref<TipBody | null>
  let gaugeId: Ref<string | null>
  beforeEach(() => {
    vi.useFakeTimers({
      now: 0,
      toFake: ['setInterval', 'clearInterval', 'setTimeout', 'clearTimeout', 'performance', 'Date'],
    })
    server = aroundPage()
    tip = ref({ job_id: 'j', quantity: 'protrusion', part: 'hole-5' } as unknown as TipBody)
    gaugeId = ref('g')
  })
  afterEach(() => {
    page.app.unmount()
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })
  const open = async () => {
    page = await mounted(() =>
      useGaugeAt(
        () => gaugeId.value,
        () => tip.value,
      ),
    )
  }
  const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms)

  it('counts only what came after the tip got there', async () => {
    server.answer(LINK, says({ age_s: 5 }), says())
    await open()
    await pass(10)
    expect(page.it.live.value).toBe(false)
    await pass(600)
    expect(page.it.live.value).toBe(true)
    expect(page.it.trouble.value).toBe('')
  })

  it('is asked for no more once its view is gone', async () => {
    server.answer(LINK, says())
    await open()
    await pass(500)
    const before = server.asked.length
    page.app.unmount()
    await pass(1000)
    expect(server.asked.length).toBe(before)
    await open()
  })

  it('tells a simulated gauge where its tip stands, again at each place, and a real one nothing', async () => {
    server.answer(LINK, says({ simulated: true }))
    server.answer(TIP, { body: {} })
    await open()
    await pass(300)
    tip.value = { ...tip.value, part: 'hole-6' } as TipBody
    await pass(300)
    const told = server.asked.filter((one) => one.path === TIP).map((one) => (one.body as TipBody).part)
    expect(told).toEqual(['hole-5', 'hole-6'])
    page.app.unmount()
    server.answer(LINK, says())
    server.asked.length = 0
    await open()
    await pass(300)
    expect(server.asked.some((one) => one.path === TIP)).toBe(false)
  })

  it('says that the application is away, and that there is no line', async () => {
    server.answer(LINK, { status: 503, body: refusalBody('unavailable', 'away') })
    await open()
    await pass(300)
    expect(page.it.trouble.value).toBe('The application cannot be reached.')
    expect(page.it.live.value).toBe(false)
    page.app.unmount()
    gaugeId.value = null
    server.asked.length = 0
    await open()
    await pass(500)
    expect(server.asked).toEqual([])
    expect(page.it.trouble.value).toContain('has no line: type the reading')
  })

  it('is not live while its line is down, whatever it said last', async () => {
    server.answer(LINK, says(), says(), says(), says({ state: 'silent' }))
    await open()
    await pass(400)
    expect(page.it.live.value).toBe(true)
    await pass(400)
    expect(page.it.live.value).toBe(false)
    expect(page.it.trouble.value).not.toBe('')
  })
})
