import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'

import type { BlockView } from '@/api/generated'
import { people } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'

import { useUndo } from './useUndo'

interface Sent {
  row: string
  struck: boolean
}

/** A server that keeps what it is told and answers as told. */
function server(status = 201) {
  const sent: Sent[] = []
  const fetch = vi.fn(async (request: Request) => {
    const { struck } = (await request.json()) as { struck: boolean }
    sent.push({ row: request.url.split('/').at(-2) ?? '', struck })
    const body =
      status === 201
        ? { job_id: 'j' }
        : { code: 'wrong', message: 'It is struck already.', problems: [], suggestions: [] }
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })
  })
  vi.stubGlobal('fetch', fetch)
  return sent
}

const reading = (id: string, event: number, struck = false, taken_by = 'Wren') => ({
  reading_id: id,
  event,
  struck,
  taken_by,
})
const job = (rows: object[] = []): JobNow => ({
  jobId: 'j',
  block: shallowRef({ readings: rows, done: [] } as unknown as BlockView),
  seenAt: ref(null),
  refusal: ref(null),
  reload: vi.fn(async () => undefined),
})

describe('undo', () => {
  let sent: Sent[]
  beforeEach(() => {
    sent = server()
    people.value = [{ person_id: 'w', name: 'Wren' }]
    personId.value = 'w'
  })
  afterEach(() => vi.unstubAllGlobals())

  it('strikes what was just taken', async () => {
    const undo = useUndo(job())
    undo.took('a', [])
    await undo.undo()
    expect(sent).toEqual([{ row: 'a', struck: true }])
  })

  it('brings back what a correction struck with it', async () => {
    const undo = useUndo(job())
    undo.took('new', ['old'])
    await undo.undo()
    expect(sent).toEqual([
      { row: 'new', struck: true },
      { row: 'old', struck: false },
    ])
  })

  it('goes back step by step, striking and restoring', async () => {
    const undo = useUndo(job())
    undo.took('a', [])
    await undo.setStruck('b', true, 'slip')
    await undo.undo()
    await undo.undo()
    expect(sent.map((one) => [one.row, one.struck])).toEqual([
      ['b', true],
      ['b', false],
      ['a', true],
    ])
  })

  it('takes the newest thing standing when it was recorded before a reload', async () => {
    await useUndo(job([reading('a', 1), reading('c', 3, true), reading('b', 2)])).undo()
    expect(sent).toEqual([{ row: 'b', struck: true }])
  })

  it('never takes back what somebody else recorded at another bench', async () => {
    await useUndo(job([reading('mine', 1), reading('theirs', 2, false, 'Ines')])).undo()
    expect(sent).toEqual([{ row: 'mine', struck: true }])
  })

  it('waits for what is still under way, and strikes that, not the one before', async () => {
    const undo = useUndo(job([reading('before', 1)]))
    let answered = (): void => undefined
    const recorded = undo.inTurn(async () => {
      await new Promise<void>((resolve) => (answered = resolve))
      undo.took('new', [])
    })
    const undone = undo.undo()
    await Promise.resolve()
    answered()
    await Promise.all([recorded, undone])
    expect(sent).toEqual([{ row: 'new', struck: true }])
  })

  it('goes on after something that was refused', async () => {
    const undo = useUndo(job([reading('before', 1)]))
    const refused = undo.inTurn(() => Promise.reject(new Error('not a measure')))
    const undone = undo.undo()
    await expect(refused).rejects.toThrow('not a measure')
    expect(await undone).toBe(true)
    expect(sent).toEqual([{ row: 'before', struck: true }])
  })

  it('out of reach undoes nothing, and the same step the next time', async () => {
    const undo = useUndo(job())
    undo.took('a', [])
    undo.took('b', [])
    vi.stubGlobal(
      'fetch',
      vi.fn(() => Promise.reject(new TypeError('Failed to fetch'))),
    )
    expect(await undo.undo()).toBe(false)
    sent = server()
    expect(await undo.undo()).toBe(true)
    expect(sent).toEqual([{ row: 'b', struck: true }])
  })

  it('goes on where the link broke half-way through a correction', async () => {
    const undo = useUndo(job())
    undo.took('new', ['old'])
    const answering = fetch
    let asked = 0
    vi.stubGlobal('fetch', (request: Request) =>
      ++asked === 1 ? answering(request) : Promise.reject(new TypeError('Failed to fetch')),
    )
    expect(await undo.undo()).toBe(false)
    vi.stubGlobal('fetch', answering)
    expect(await undo.undo()).toBe(true)
    expect(sent).toEqual([
      { row: 'new', struck: true },
      { row: 'old', struck: false },
    ])
  })

  it('takes back what is no row to strike by what records the opposite', async () => {
    const undo = useUndo(job([reading('before', 1)]))
    const back = vi.fn(async () => undefined)
    undo.did(back)
    expect(await undo.undo()).toBe(true)
    expect(back).toHaveBeenCalledOnce()
    expect(sent).toEqual([])
  })

  it('says so when nothing is left to undo', async () => {
    const undo = useUndo(job([reading('theirs', 2, false, 'Ines')]))
    expect(await undo.undo()).toBe(false)
    expect(sent).toEqual([])
    expect(undo.refusal.value?.message).toBe('Nothing that Wren recorded is left to undo.')
  })

  it('says why when it is refused, and loads again either way', async () => {
    sent = server(422)
    const loadAgain = vi.fn()
    const deaf = onChange(loadAgain)
    const undo = useUndo(job())
    undo.took('a', [])
    await undo.undo()
    deaf()
    expect(undo.refusal.value?.message).toBe('It is struck already.')
    expect(loadAgain).toHaveBeenCalledExactlyOnceWith('j')
  })
})
