import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { aroundPage } from '@/testing/around'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import { type MoneyNow, useMoney } from './useMoney'

describe('the money of a job', () => {
  let server: FakeServer
  let now: Mounted<MoneyNow>
  beforeEach(async () => {
    server = aroundPage()
    server.answer('/api/jobs/j/money', { body: { currency: 'crowns' } })
    now = await mounted(() => useMoney('j'))
    await settled()
  })
  afterEach(() => {
    now.app.unmount()
    vi.unstubAllGlobals()
  })
  const posted = () => server.asked.filter((one) => one.method === 'POST')
  const line = (low: string, worst: string) => ({
    sheet: 'work',
    key: 'bore',
    words: 'Bore',
    low,
    worst,
    tax: ' ',
  })

  it('sends figures with a point whichever way they were typed, nought where nothing was', async () => {
    server.answer('/api/jobs/j/estimates', { status: 201, body: {} })
    expect(await now.it.write([line('120,50', ' 200 ')] as never, 'As looked at')).toBe(true)
    expect(posted()[0]?.body).toMatchObject({
      words: 'As looked at',
      person_id: 'w',
      lines: [{ low: '120.50', worst: '200', tax_percent: '0' }],
    })
  })

  it('loads what it comes to once it is written down', async () => {
    server.answer('/api/jobs/j/estimates', { status: 201, body: {} })
    const before = server.asked.filter((one) => one.method === 'GET').length
    await now.it.write([], '')
    expect(server.asked.filter((one) => one.method === 'GET').length).toBe(before + 1)
  })

  it('keeps why something was refused until the next is sent', async () => {
    server.answer(
      '/api/jobs/j/declined',
      { status: 422, body: refusalBody('wrong input', 'Say why.') },
      { status: 201, body: {} },
    )
    expect(await now.it.decline('bore 3', '')).toBe(false)
    expect([now.it.refusal.value?.message, now.it.busy.value]).toEqual(['Say why.', false])
    expect(await now.it.decline('bore 3', 'the owner fits it')).toBe(true)
    expect(now.it.refusal.value).toBeNull()
    expect(posted().at(-1)?.body).toMatchObject({ what: 'bore 3', reason: 'the owner fits it' })
  })

  it('pays a part in the currency of the shop, and answers an estimate by who said so', async () => {
    server.answer('/api/jobs/j/part-costs', { status: 201, body: {} })
    server.answer('/api/jobs/j/estimates/e/answer', { status: 201, body: {} })
    await now.it.pay('liner', 'Liner P3', '88,2', 'ours' as never)
    expect(posted().at(-1)?.body).toMatchObject({
      key: 'liner',
      words: 'Liner P3',
      money: '88.2',
      bill: 'ours',
    })
    await now.it.answer('e', {
      answer: 'agreed',
      said: 'Oda',
      way: 'by telephone',
      on: '2026-11-20',
      words: '',
    })
    expect(posted().at(-1)?.path).toBe('/api/jobs/j/estimates/e/answer')
    expect(posted().at(-1)?.body).toMatchObject({ answer: 'agreed', said: 'Oda', person_id: 'w' })
  })

  it('says what is in the way where it cannot be loaded', async () => {
    server.answer('/api/jobs/other/money', {
      status: 404,
      body: refusalBody('not found', 'There is no such job.'),
    })
    const other = await mounted(() => useMoney('other'))
    await settled()
    expect(other.it.missing.value?.message).toBe('There is no such job.')
    expect(other.it.data.value).toBeNull()
    other.app.unmount()
  })
})
