import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'

import type { ReadingBody } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, refusalBody } from '@/testing/server'

import { type Sender, useSender } from './useSender'
import { type Taken, useTaken } from './useTaken'

const kept: { jobId: string; body: ReadingBody }[] = []
const state = vi.hoisted(() => ({ mustWait: { value: false }, sentLast: { value: '' } }))
vi.mock('./outbox', async () => {
  const { ref } = await import('vue')
  state.mustWait = ref(false)
  state.sentLast = ref('')
  return {
    mustWait: state.mustWait,
    sentLast: state.sentLast,
    keep: (jobId: string, body: ReadingBody) => {
      kept.push({ jobId, body })
      return Promise.resolve()
    },
  }
})

const TAKE = '/api/jobs/j/readings'
const BODY = { quantity: 'protrusion', hole: 5, hour: 3, text: '54' } as unknown as Omit<
  ReadingBody,
  'reading_id'
>
const idOf = (asked: { body: unknown } | undefined) => (asked?.body as ReadingBody).reading_id

describe('sending a reading', () => {
  let server: FakeServer
  let sender: Sender
  beforeEach(() => {
    server = aroundPage()
    kept.length = 0
    state.mustWait.value = false
    sender = useSender('j')
  })
  afterEach(() => {
    vi.unstubAllGlobals()
  })

  it('says it as it was recorded', async () => {
    server.answer(TAKE, { status: 201, body: { reading_id: 'r', typed: '54', typed_unit: 'µm', event: 9 } })
    expect(await sender.send('5 at 3', BODY)).toMatchObject({
      words: '54 µm',
      readingId: 'r',
      event: 9,
      waitingId: '',
    })
  })

  it('sends it again under the same id after a refusal, and a new one under a new id', async () => {
    server.answer(
      TAKE,
      { status: 409, body: refusalBody('read before', 'Is this a repeat?') },
      { status: 201, body: { reading_id: 'r', typed: '54', typed_unit: 'µm', event: 9 } },
    )
    await expect(sender.send('5 at 3', BODY)).rejects.toThrow()
    await sender.send('5 at 3', BODY)
    await sender.send('5 at 6', BODY)
    const [first, second, third] = server.asked.map(idOf)
    expect(second).toBe(first)
    expect(third).not.toBe(first)
  })

  it('keeps it under that id where the application does not answer', async () => {
    server.answer(TAKE, 'away')
    const sent = await sender.send('5 at 3', BODY)
    expect(sent.words).toBe('54, waiting for the link')
    expect(kept).toEqual([{ jobId: 'j', body: { ...BODY, reading_id: idOf(server.asked[0]) } }])
    expect(sent.waitingId).toBe(idOf(server.asked[0]))
  })

  it('asks nobody while others wait before it', async () => {
    state.mustWait.value = true
    await sender.send('5 at 3', BODY)
    expect(server.asked).toEqual([])
    expect(kept).toHaveLength(1)
  })
})

describe('what was taken last', () => {
  let page: Mounted<Taken>
  beforeEach(async () => {
    aroundPage()
    state.sentLast.value = ''
    page = await mounted(useTaken)
  })
  afterEach(() => {
    page.app.unmount()
    vi.unstubAllGlobals()
  })

  it('says where and what, until a step takes nothing', () => {
    page.it.say('5 at 3h', '54 µm', 'r')
    expect([page.it.words.value, page.it.id.value]).toEqual(['5 at 3h: 54 µm', 'r'])
    page.it.miss('The gauge sends nothing.')
    expect([page.it.words.value, page.it.id.value, page.it.missed.value]).toEqual([
      '',
      '',
      'The gauge sends nothing.',
    ])
    page.it.say('', 'noted')
    expect([page.it.words.value, page.it.missed.value]).toEqual(['noted', ''])
  })

  it('says of a reading that waited that it was sent, and of no other', async () => {
    page.it.say('5 at 3h', '54, waiting for the link', '', 'w1')
    state.sentLast.value = 'w0'
    await nextTick()
    expect(page.it.words.value).toContain('waiting for the link')
    state.sentLast.value = 'w1'
    await nextTick()
    expect(page.it.words.value).toBe('5 at 3h: 54, sent')
  })
})
