import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'

import type { BlockView, UndoView } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { people } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'

import { useUndo } from './useUndo'

/** A server that keeps what it is asked to take back, and answers as told. */
function server(status = 201) {
  const asked: unknown[] = []
  const fetch = vi.fn(async (request: Request) => {
    asked.push(await request.json())
    const body =
      status === 201
        ? { words: 'hole 5: 54' }
        : { code: 'stale', message: 'Meanwhile something else.', problems: [], suggestions: [] }
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })
  })
  vi.stubGlobal('fetch', fetch)
  return asked
}

const step = (changed: Partial<UndoView> = {}): UndoView => ({
  by: 'Wren',
  event: 7,
  words: 'hole 5: 54',
  hole: 5,
  part: 'hole-5',
  ...changed,
})

function job(steps: UndoView[], event = 7): JobNow {
  const liners = [{ liner: { mark: 'L5' }, hole: 5 }]
  return {
    jobId: 'j',
    block: shallowRef({ undo: steps, event, liners } as unknown as BlockView),
    seenAt: ref(null),
    refusal: ref(null),
    reload: vi.fn(() => Promise.resolve()),
  }
}

describe('undo', () => {
  let asked: unknown[]
  beforeEach(() => {
    asked = server()
    people.value = [{ person_id: 'w', name: 'Wren' }]
    personId.value = 'w'
  })
  afterEach(() => vi.unstubAllGlobals())

  it('names its target, and asks for exactly that', async () => {
    const undo = useUndo(job([step({ by: 'Ines', event: 9 }), step()]))
    expect(undo.next.value?.words).toBe('hole 5: 54')
    expect(await undo.undo()).toBe(true)
    expect(asked).toEqual([{ event: 7, person_id: 'w' }])
    expect(undo.said.value).toBe('hole 5: 54')
  })

  it('takes nothing back that somebody else recorded', async () => {
    const undo = useUndo(job([step({ by: 'Ines' })]))
    expect(undo.next.value).toBeNull()
    expect(await undo.undo()).toBe(false)
    expect(asked).toEqual([])
    expect(undo.refusal.value?.message).toBe('Nothing that Wren recorded is left to undo.')
  })

  it('asks before it takes back what lies on another part', async () => {
    const undo = useUndo(job([step({ words: 'liner L2: flange', hole: null, part: 'liner-L2' })]))
    undo.standAt(() => ({ hole: 5, part: 'hole-5' }))
    expect(await undo.undo()).toBe(false)
    expect(asked).toEqual([])
    expect(undo.asking.value?.words).toBe('liner L2: flange')
    expect(await undo.undo(true)).toBe(true)
    expect(asked).toHaveLength(1)
    expect(undo.asking.value).toBeNull()
  })

  it.each([
    ['the same hole', step()],
    ['the liner that sits in it', step({ hole: null, part: 'liner-L5' })],
    ['what holds for the whole job', step({ hole: null, part: '' })],
  ])('does not ask about %s', async (_, one) => {
    const undo = useUndo(job([one]))
    undo.standAt(() => ({ hole: 5, part: 'hole-5' }))
    expect(await undo.undo()).toBe(true)
  })

  it('does not ask about what was just taken here, but does once an entry was refused', () => {
    const undo = useUndo(job([step()]))
    undo.standAt(() => ({ hole: 6, part: 'hole-6' }))
    undo.took(7)
    expect(undo.next.value?.elsewhere).toBe(false)
    const after = useUndo(job([step()]))
    after.standAt(() => ({ hole: 6, part: 'hole-6' }))
    after.took(7)
    after.took(null)
    expect(after.next.value?.elsewhere).toBe(true)
  })

  it('looks again where what was taken last is not shown yet', async () => {
    const now = job([step()], 7)
    now.reload = vi.fn(() => {
      now.block.value = { undo: [step({ event: 8, words: 'hole 5: 60' })], event: 8, liners: [] } as never
      return Promise.resolve()
    })
    const undo = useUndo(now)
    undo.standAt(() => ({ hole: 6, part: 'hole-6' }))
    undo.did()
    await undo.undo()
    expect(asked).toEqual([{ event: 8, person_id: 'w' }])
  })

  it('waits for what is still under way', async () => {
    const now = job([step()])
    const undo = useUndo(now)
    let finish: () => void = () => undefined
    const taking = undo.inTurn(() => new Promise<void>((resolve) => (finish = resolve)))
    const undoing = undo.undo()
    await Promise.resolve()
    expect(undo.underWay.value).toBe(true)
    expect(asked).toEqual([])
    finish()
    await Promise.all([taking, undoing])
    expect(asked).toHaveLength(1)
    expect(undo.underWay.value).toBe(false)
  })

  it('says why when it is refused, and loads again either way', async () => {
    asked = server(409)
    const loadAgain = vi.fn()
    const deaf = onChange(loadAgain)
    const undo = useUndo(job([step()]))
    expect(await undo.undo()).toBe(false)
    deaf()
    expect(undo.refusal.value?.message).toBe('Meanwhile something else.')
    expect(undo.said.value).toBe('')
    expect(loadAgain).toHaveBeenCalledExactlyOnceWith('j')
  })

  it('forgets what it said once something else is recorded', async () => {
    const undo = useUndo(job([step()]))
    await undo.undo()
    await undo.inTurn(() => Promise.resolve())
    expect(undo.said.value).toBe('')
  })
})
