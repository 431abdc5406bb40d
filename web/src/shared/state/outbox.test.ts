import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { ReadingBody } from '@/api/generated'
import { type FakeServer, fakeServer, refusalBody } from '@/testing/server'

import { linkUp, shutOut } from './link'
import {
  answerHeld,
  dropHeld,
  held,
  keep,
  mustWait,
  sendWaiting,
  sentLast,
  takeBack,
  waiting,
  waitingFor,
  waitingWords,
} from './outbox'
import { shelf } from './shelf'

const JOB = 'job-1'
const TAKEN = /^\/api\/jobs\/[^/]+\/readings$/
const reading = (id: string, text: string, changed: Partial<ReadingBody> = {}): ReadingBody => ({
  reading_id: id,
  quantity: 'protrusion',
  hole: 5,
  hour: 6,
  text,
  bare_unit: 'thou',
  person_id: 'wren',
  ...changed,
})
const recorded = { status: 201, body: { reading_id: 'x', typed: '1', typed_unit: 'thou', event: 1 } }

describe('the outbox', () => {
  let server: FakeServer
  beforeEach(() => {
    server = fakeServer()
    held.value = null
    shutOut.value = ''
    linkUp.value = true
  })
  afterEach(async () => {
    await (await shelf()).clear('waiting')
    waiting.value = []
    vi.unstubAllGlobals()
  })
  const sent = () => server.asked.filter((one) => TAKEN.test(one.path)).map((one) => one.body as ReadingBody)

  it('sends what waits in the order it was taken, each under its own id', async () => {
    server.answer(TAKEN, recorded)
    await keep(JOB, reading('a', '1.6'))
    await keep(JOB, reading('b', '1.7', { hour: 9 }))
    await sendWaiting()
    expect(sent().map((one) => [one.reading_id, one.text])).toEqual([
      ['a', '1.6'],
      ['b', '1.7'],
    ])
    expect(waiting.value).toEqual([])
    expect(sentLast.value).toBe('b')
    expect(await (await shelf()).count('waiting')).toBe(0)
  })

  it('says how long a reading waited, never less than nothing', async () => {
    server.answer(TAKEN, recorded)
    await keep(JOB, reading('a', '1.6'))
    await sendWaiting()
    expect(sent()[0]?.waited_s).toBeGreaterThanOrEqual(0)
  })

  it('keeps everything while the application is away', async () => {
    server.answer(TAKEN, 'away')
    await keep(JOB, reading('a', '1.6'))
    await keep(JOB, reading('b', '1.7'))
    await sendWaiting()
    expect(waiting.value.map((one) => one.body.reading_id)).toEqual(['a', 'b'])
    expect(held.value).toBeNull()
    expect(mustWait.value).toBe(true)
  })

  it('stops at the first that is not taken, so that the order is kept', async () => {
    server.answer(TAKEN, { status: 422, body: refusalBody('wrong', 'There is no hole 9.') }, recorded)
    await keep(JOB, reading('a', '1.6', { hole: 9 }))
    await keep(JOB, reading('b', '1.7'))
    await sendWaiting()
    expect(sent().map((one) => one.reading_id)).toEqual(['a'])
    expect(held.value?.message).toBe('There is no hole 9.')
    await sendWaiting()
    expect(sent()).toHaveLength(1)
    await dropHeld()
    expect(sent().map((one) => one.reading_id)).toEqual(['a', 'b'])
    expect(held.value).toBeNull()
  })

  it('tells a device that is not let in to pair, and holds nothing back for that', async () => {
    server.answer(TAKEN, { status: 401, body: refusalBody('not paired', 'Pair this device.') })
    await keep(JOB, reading('a', '1.6'))
    await sendWaiting()
    expect(shutOut.value).toBe('not paired')
    expect(held.value).toBeNull()
    expect(waiting.value).toHaveLength(1)
  })

  it.each([
    ['repeat' as const, { read_before: 'repeat' }],
    ['correct' as const, { read_before: 'correct' }],
    ['new pass' as const, { new_pass: true }],
    [
      { label: 'As typed', text: '', confirm: true },
      { text: '16', confirmed: true },
    ],
    [
      { label: '1.6', text: '1.6', confirm: false },
      { text: '1.6', confirmed: false },
    ],
  ])('goes on with what was answered: %o', async (answer, said) => {
    server.answer(TAKEN, { status: 409, body: refusalBody('asks', 'Is it a slip?') }, recorded)
    await keep(JOB, reading('a', '16'))
    await sendWaiting()
    expect(held.value?.code).toBe('asks')
    await answerHeld(answer)
    expect(sent().at(-1)).toMatchObject({ reading_id: 'a', ...said })
    expect(waiting.value).toEqual([])
  })

  it('understands a kept line when it is sent, by the place chosen then', async () => {
    server.answer('/api/compute/parse', { body: { value_um: 40, typed: '1.6', hole: 3, hour: 9 } })
    server.answer(TAKEN, recorded)
    await keep(JOB, reading('a', '3 9h 1.6'), { text: '3 9h 1.6', holes: [1, 2, 3] })
    expect(waitingWords(waiting.value[0]!)).toBe('3 9h 1.6')
    await sendWaiting()
    expect(server.asked[0]?.body).toMatchObject({
      text: '3 9h 1.6',
      holes: [1, 2, 3],
      present_hole: 5,
      present_hour: 6,
    })
    expect(sent()[0]).toMatchObject({ reading_id: 'a', text: '1.6', hole: 3, hour: 9 })
  })

  it('understands a kept line of a bore by the levels and axes it could name', async () => {
    server.answer('/api/compute/parse', {
      body: { value_um: 35.56, typed: '1.4', hole: 2, hour: null, level_um: '119380', axis_deg: 45 },
    })
    server.answer(TAKEN, recorded)
    const bore = { levels: [{ name: 'middle', depth_um: '119380' }], axes_deg: [0, 45], present_axis_deg: 0 }
    const body = reading('a', '2 m 45d 1.4', { quantity: 'block bore' })
    await keep(JOB, body, { text: '2 m 45d 1.4', holes: [1, 2], bore })
    await sendWaiting()
    expect(server.asked[0]?.body).toMatchObject({ ...bore, text: '2 m 45d 1.4' })
    expect(sent()[0]).toMatchObject({
      quantity: 'block bore',
      part: 'hole-2',
      level_um: '119380',
      axis_deg: 45,
      hole: null,
      hour: null,
      text: '1.4',
    })
  })

  it('drops a kept line that only chose a hole', async () => {
    server.answer('/api/compute/parse', { body: { value_um: null, typed: '', hole: 3, hour: null } })
    await keep(JOB, reading('a', '#3'), { text: '#3', holes: [1, 2, 3] })
    await sendWaiting()
    expect(sent()).toEqual([])
    expect(waiting.value).toEqual([])
  })

  it('takes back the newest of its own job only', async () => {
    await keep(JOB, reading('a', '1.6'))
    await keep('job-2', reading('b', '1.7'))
    expect(waitingFor(JOB)).toHaveLength(1)
    expect(await takeBack(JOB)).toBe(true)
    expect(waiting.value.map((one) => one.body.reading_id)).toEqual(['b'])
    expect(await takeBack(JOB)).toBe(false)
  })

  it('names what waits as the entry line would', async () => {
    await keep(JOB, reading('a', '1.6', { hour: 10.5 }))
    await keep(JOB, reading('b', '0.002', { hole: null, hour: null, part: 'piston-2' }))
    expect(waiting.value.map(waitingWords)).toEqual(['5·10.5h 1.6', 'piston-2 0.002'])
  })

  it('sends nothing twice, however often it is told to', async () => {
    server.answer(TAKEN, recorded)
    await keep(JOB, reading('a', '1.6'))
    await Promise.all([sendWaiting(), sendWaiting(), sendWaiting()])
    expect(sent()).toHaveLength(1)
  })
})
