import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'
import { type Mounted, mounted } from '@/testing/mounted'

import { type JobNow, useJobLoading } from './job'
import { linkUp, refresh } from './link'
import { shelf } from './shelf'

const BLOCK = '/api/jobs/j/block'
const block = (event: number, more: object = {}) => ({
  body: {
    event,
    job: { job_id: 'j', name: `as of ${event}` },
    holes: [],
    setups: [],
    card: { version: { version: 1 } },
    ...more,
  },
})

describe('the block of a job', () => {
  let server: FakeServer
  let view: Mounted<JobNow>
  beforeEach(() => {
    server = fakeServer()
    linkUp.value = true
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
  })
  afterEach(async () => {
    view.app.unmount()
    await (await shelf()).clear('blocks')
    vi.unstubAllGlobals()
  })
  const load = async () => {
    view = await mounted(() => useJobLoading('j'))
    await view.it.reload()
    await settled()
    return view.it
  }

  it('is loaded once for all views, and again after a change', async () => {
    server.answer(BLOCK, block(1), block(2))
    const job = await load()
    expect(job.block.value?.event).toBe(1)
    await refresh('j')
    expect(job.block.value?.event).toBe(2)
  })

  it('keeps the same object where nothing changed, so that nothing is drawn anew', async () => {
    server.answer(BLOCK, block(1))
    const job = await load()
    const before = job.block.value
    await job.reload()
    expect(job.block.value).toBe(before)
  })

  it('never lets an older answer replace a newer one', async () => {
    let late: (body: unknown) => void = () => undefined
    server.answer(BLOCK, block(1))
    const job = await load()
    server.answer(BLOCK, new Promise((resolve) => (late = resolve)), block(3))
    const slow = job.reload()
    await job.reload()
    expect(job.block.value?.event).toBe(3)
    late(block(2).body)
    await slow
    expect(job.block.value?.event).toBe(3)
  })

  it('shows what was seen last while the application is away, and says when that was', async () => {
    server.answer(BLOCK, block(4))
    const job = await load()
    view.app.unmount()
    server.answer(BLOCK, 'away')
    const again = await load()
    expect(again.block.value?.event).toBe(4)
    expect(again.seenAt.value).not.toBeNull()
    expect(again.refusal.value).toBeNull()
    expect(linkUp.value).toBe(false)
    expect(job.block.value?.event).toBe(4)
  })

  it('says why where there is nothing to show', async () => {
    server.answer(BLOCK, { status: 404, body: refusalBody('not found', 'There is no job with that id.') })
    const job = await load()
    expect(job.block.value).toBeNull()
    expect(job.refusal.value?.message).toBe('There is no job with that id.')
    server.answer(BLOCK, block(1))
    await job.reload()
    expect(job.refusal.value).toBeNull()
  })
})
