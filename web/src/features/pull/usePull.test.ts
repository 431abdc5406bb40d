import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { PullPageView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import { type PullNow, usePull } from './usePull'

const page = (more: object = {}): PullPageView =>
  ({
    hole: 3,
    is_home: false,
    now: '2026-11-20T10:05:00Z',
    pull: { pull_id: 'p', began_at: '2026-11-20T10:00:00Z', turns: 12, to_go_m: 0.0521, marks: [], ...more },
  }) as unknown as PullPageView
const PAGE = '/api/jobs/j/pulls/3'
const MARKS = '/api/jobs/j/pulls/3/p/marks'
const UNDO = '/api/jobs/j/pulls/3/p/undo'

describe('the pull of a hole', () => {
  let server: FakeServer
  let now: Mounted<PullNow>
  beforeEach(async () => {
    server = aroundPage()
    server.answer(PAGE, { body: page() })
    now = await mounted(() => usePull('j', () => 3))
    await settled()
  })
  afterEach(() => {
    now.app.unmount()
    vi.unstubAllGlobals()
  })
  const sent = (path: string) => server.asked.filter((one) => one.path === path && one.method === 'POST')

  it('counts a turn by its number, so that it is never counted twice, and calls what it passes', async () => {
    server.answer(MARKS, { status: 201, body: page({ turns: 13, to_go_m: 0.0499 }) })
    expect(await now.it.note('one turn')).toBe(true)
    expect(sent(MARKS)[0]?.body).toMatchObject({
      kind: 'one turn',
      turn: 13,
      bare_unit: 'mm',
      person_id: 'w',
    })
    expect(now.it.said.value).toBe('50 mm to go. fifty')
    expect(now.it.pull.value?.turns).toBe(13)
  })

  it('notes what is felt, which is no turn', async () => {
    server.answer(MARKS, { status: 201, body: page() })
    await now.it.note('touches', { words: 'all round' })
    expect(sent(MARKS)[0]?.body).toMatchObject({ kind: 'touches', turn: null, words: 'all round' })
    expect(now.it.said.value).toBe('touches: noted.')
  })

  it('keeps the count where a mark is refused, and loads what is newer', async () => {
    server.answer(MARKS, { status: 409, body: refusalBody('stale', 'Turn 13 is counted already.') })
    server.answer(PAGE, { body: page({ turns: 13 }) })
    expect(await now.it.note('one turn')).toBe(false)
    expect(now.it.refusal.value?.message).toBe('Turn 13 is counted already.')
    expect([now.it.pull.value?.turns, now.it.said.value, now.it.busy.value]).toEqual([13, '', false])
  })

  it('takes back the newest mark, and nothing where there is none', async () => {
    await now.it.undo()
    expect(server.asked.filter((one) => one.method === 'POST')).toEqual([])
    server.answer(MARKS, { status: 201, body: page({ marks: [{ pull_mark_id: 'm', kind: 'one turn' }] }) })
    await now.it.note('one turn')
    server.answer(UNDO, { status: 201, body: page() })
    await now.it.undo()
    expect(now.it.said.value).toBe('Struck: one turn.')
    expect(sent(UNDO).map((one) => one.body)).toEqual([{ pull_mark_id: 'm', person_id: 'w' }])
  })

  it('runs its clock from the machine that serves, whatever time it is here', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: 0 })
    const elsewhere = await mounted(() => usePull('j', () => 3))
    await settled()
    expect(elsewhere.it.elapsed.value).toBe(300)
    elsewhere.app.unmount()
    vi.useRealTimers()
  })

  it('begins under an id of its own', async () => {
    server.answer(PAGE, { status: 201, body: page() })
    expect(await now.it.begin({ tool_id: 't' } as never)).toBe(true)
    const [begun] = sent(PAGE)
    expect(begun?.body).toMatchObject({ tool_id: 't', person_id: 'w' })
    expect((begun?.body as { pull_id: string }).pull_id).toMatch(/^[0-9a-f-]{36}$/)
  })
})
