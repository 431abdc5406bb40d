import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import { downSince, linkFailed, linkUp, onChange, ownChange, refresh, startLink, shutOut } from './link'

/** The stream of changes, told by the test. */
class Stream {
  static opened: Stream[] = []
  static get last(): Stream {
    return Stream.opened.at(-1)!
  }
  onmessage: (event: { data: string }) => void = () => undefined
  onerror: () => void = () => undefined
  closed = false
  constructor(readonly url: string) {
    Stream.opened.push(this)
  }
  say(kind: 'changed' | 'beat', job_id: string | null = null): void {
    this.onmessage({ data: JSON.stringify({ kind, job_id }) })
  }
  close(): void {
    this.closed = true
  }
}

describe('the link', () => {
  let server: FakeServer
  let heard: (string | null)[]
  let stop: () => void
  beforeEach(() => {
    vi.stubGlobal('EventSource', Stream)
    server = fakeServer()
    server.answer('/api/people', { body: [] })
    heard = []
    stop = onChange((job) => void heard.push(job))
    linkUp.value = true
    shutOut.value = ''
    startLink()
  })
  afterEach(() => {
    stop()
    vi.unstubAllGlobals()
    vi.useRealTimers()
  })

  it('tells of a change to whoever listens, and no longer once they stopped', () => {
    Stream.last.say('changed', 'j')
    stop()
    Stream.last.say('changed', 'k')
    expect(heard).toEqual(['j'])
  })

  it('hears nothing in a beat but that the link stands', () => {
    Stream.last.say('beat')
    expect(heard).toEqual([])
    expect(linkUp.value).toBe(true)
  })

  it('swallows the echo of a change made here, once', async () => {
    await ownChange('j', () => Promise.resolve())
    Stream.last.say('changed', 'j')
    Stream.last.say('changed', 'j')
    Stream.last.say('changed', 'other')
    expect(heard).toEqual(['j', 'other'])
  })

  it('swallows no echo of a change that may not have been made', async () => {
    await expect(ownChange('j', () => Promise.reject(new Error('away')))).rejects.toThrow('away')
    Stream.last.say('changed', 'j')
    expect(heard).toEqual(['j'])
  })

  it('is down with the stream, says since when, and tells of everything once it is back', () => {
    vi.useFakeTimers()
    const before = Stream.opened.length
    Stream.last.onerror()
    expect(linkUp.value).toBe(false)
    expect(downSince.value).not.toBeNull()
    vi.advanceTimersByTime(2_000)
    expect(Stream.opened.length).toBe(before + 1)
    Stream.last.say('beat')
    expect(linkUp.value).toBe(true)
    expect(downSince.value).toBeNull()
    expect(heard).toEqual([null])
  })

  it('is down after a silence longer than two beats', () => {
    vi.useFakeTimers()
    Stream.last.say('beat')
    vi.advanceTimersByTime(11_000)
    expect(linkUp.value).toBe(true)
    vi.advanceTimersByTime(2_000)
    expect(linkUp.value).toBe(false)
  })

  it('is down with a request that was not answered', () => {
    linkFailed()
    expect(linkUp.value).toBe(false)
    const since = downSince.value
    linkFailed()
    expect(downSince.value).toBe(since)
  })

  it('asks why it ended: a device that is not let in is told so', async () => {
    server.answer('/api/people', { status: 401, body: refusalBody('not paired', 'Pair this device.') })
    Stream.last.onerror()
    await settled()
    expect(shutOut.value).toBe('not paired')
  })

  it('loads what is shown again, and waits for all of it', async () => {
    const done: string[] = []
    const other = onChange(async () => {
      await Promise.resolve()
      done.push('loaded')
    })
    await refresh('j')
    expect(done).toEqual(['loaded'])
    expect(heard).toEqual(['j'])
    linkUp.value = false
    await refresh('j')
    expect(done).toHaveLength(1)
    other()
  })
})
