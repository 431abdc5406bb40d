import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { aroundPage } from '@/testing/around'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, refusalBody } from '@/testing/server'

import { type Printing, usePrinting } from './usePrinting'

const PDF = '/api/jobs/j/proof.pdf'

describe('printing the proof', () => {
  let server: FakeServer
  let page: Mounted<Printing>
  const saved: string[] = []
  beforeEach(async () => {
    server = aroundPage()
    saved.length = 0
    vi.spyOn(URL, 'createObjectURL').mockReturnValue('blob:x')
    vi.spyOn(URL, 'revokeObjectURL').mockReturnValue()
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      saved.push(this.download)
    })
    page = await mounted(() =>
      usePrinting(
        'j',
        () => 'thou',
        () => 'Ferry Lanthorn.pdf',
      ),
    )
  })
  afterEach(() => {
    page.app.unmount()
    vi.restoreAllMocks()
    vi.unstubAllGlobals()
  })

  it('saves it under its name', async () => {
    server.answer(PDF, { body: '%PDF' })
    await page.it.print()
    expect(saved).toEqual(['Ferry Lanthorn.pdf'])
    expect(page.it.waiting.seconds.value).toBeNull()
  })

  it('says why it was not printed, until it is asked for again', async () => {
    server.answer(
      PDF,
      { status: 503, body: refusalBody('unavailable', 'It took too long.') },
      { body: '%PDF' },
    )
    await page.it.print()
    expect([page.it.refusal.value?.message, saved.length]).toEqual(['It took too long.', 0])
    await page.it.print()
    expect([page.it.refusal.value, saved.length]).toEqual([null, 1])
  })

  it('saves nothing once it was given up', async () => {
    let done: (value: unknown) => void = () => undefined
    server.answer(PDF, new Promise((go) => (done = go)))
    const printing = page.it.print()
    expect(page.it.waiting.seconds.value).toBe(0)
    page.it.waiting.stop()
    done('%PDF')
    await printing
    expect([saved.length, page.it.refusal.value]).toEqual([0, null])
  })
})
