import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'

import type { BlockView, ReadingBody } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import type { Undo } from '@/shared/state/useUndo'
import { aroundPage } from '@/testing/around'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import type { GridCell } from './cells'
import { type FitRows, READY, useFitRows } from './useFitRows'
import { type Grid, useGrid } from './useGrid'

const TAKE = '/api/jobs/j/readings'
const cell = (key: string): GridCell =>
  ({ key, name: key, place: { quantity: 'counterbore depth', hole: 5, hour: 3 } }) as unknown as GridCell
const taken = { status: 201, body: { reading_id: 'r', typed: '8.9', typed_unit: 'mm', event: 9 } }

const undoOf = () => ({
  did: vi.fn(),
  took: vi.fn(),
  inTurn: <T>(work: () => Promise<T>) => work(),
})
const jobOf = (block: object = {}): JobNow => ({
  jobId: 'j',
  block: shallowRef(block as BlockView),
  seenAt: ref(null),
  refusal: ref(null),
  reload: () => Promise.resolve(),
})

describe('a grid that is typed into', () => {
  let server: FakeServer
  let undo: ReturnType<typeof undoOf>
  let page: Mounted<Grid>
  beforeEach(async () => {
    server = aroundPage('µm')
    undo = undoOf()
    page = await mounted(() => useGrid(jobOf(), undo as unknown as Undo))
  })
  afterEach(() => {
    page.app.unmount()
    vi.unstubAllGlobals()
  })
  const sent = () => server.asked.filter((one) => one.path === TAKE).map((one) => one.body as ReadingBody)

  it('takes a cell when it is left, and is empty then', async () => {
    server.answer(TAKE, taken)
    page.it.type(cell('5 at 3'), '8.9')
    await page.it.take(cell('5 at 3'))
    expect(sent()[0]).toMatchObject({
      text: '8.9',
      hole: 5,
      hour: 3,
      confirmed: false,
      new_pass: false,
      person_id: 'w',
    })
    expect(page.it.typed.value).toEqual({})
    expect(page.it.lastTaken.value?.name).toBe('5 at 3')
    expect(undo.took).toHaveBeenLastCalledWith(9)
  })

  it('sends nothing of a cell that is empty or was emptied', async () => {
    await page.it.take(cell('5 at 3'))
    page.it.type(cell('5 at 3'), '8.9')
    page.it.drop(cell('5 at 3'))
    await page.it.take(cell('5 at 3'))
    expect(sent()).toEqual([])
  })

  it('keeps what is asked about, and asks no second time when it is left again', async () => {
    server.answer(TAKE, { status: 409, body: refusalBody('read before', 'Is this a repeat?') }, taken)
    page.it.type(cell('5 at 3'), '8.9')
    await page.it.take(cell('5 at 3'))
    await page.it.take(cell('5 at 3'))
    expect(sent()).toHaveLength(1)
    expect(page.it.asked['5 at 3']?.message).toBe('Is this a repeat?')
    expect(page.it.typed.value['5 at 3']?.text).toBe('8.9')
    await page.it.answerReadBefore(cell('5 at 3'), 'correct')
    expect(sent()[1]).toMatchObject({
      read_before: 'correct',
      new_pass: false,
      reading_id: sent()[0]?.reading_id,
    })
    expect(page.it.asked).toEqual({})
  })

  it('begins a pass anew by its own word', async () => {
    server.answer(TAKE, taken)
    page.it.type(cell('5 at 3'), '8.9')
    await page.it.answerReadBefore(cell('5 at 3'), 'new pass')
    expect(sent()[0]).toMatchObject({ read_before: '', new_pass: true })
  })

  it('puts an offered text in, or takes what was typed as it is', async () => {
    server.answer(TAKE, { status: 422, body: refusalBody('slip', 'Do you mean 8.9 mm?') }, taken)
    page.it.type(cell('5 at 3'), '89')
    await page.it.take(cell('5 at 3'))
    await page.it.answer(cell('5 at 3'), { text: '8.9 mm', confirm: false, label: '' })
    expect(sent()[1]).toMatchObject({ text: '8.9 mm', confirmed: false })
    page.it.type(cell('5 at 6'), '89')
    await page.it.answer(cell('5 at 6'), { text: '', confirm: true, label: '' })
    expect(sent()[2]).toMatchObject({ text: '89', confirmed: true })
  })

  it('keeps what is typed over a cell while it is under way', async () => {
    let done: (value: unknown) => void = () => undefined
    server.answer(TAKE, new Promise((go) => (done = go)))
    page.it.type(cell('5 at 3'), '8.9')
    const taking = page.it.take(cell('5 at 3'))
    await settled()
    expect(page.it.underWay.value.has('5 at 3')).toBe(true)
    page.it.type(cell('5 at 3'), '8.91')
    done(taken.body)
    await taking
    expect(page.it.typed.value['5 at 3']?.text).toBe('8.91')
    expect(page.it.underWay.value.size).toBe(0)
  })

  it('takes all that is typed one after the other, over what is asked about', async () => {
    server.answer(TAKE, { status: 409, body: refusalBody('read before', 'Is this a repeat?') }, taken)
    const cells = [cell('5 at 3'), cell('5 at 6'), cell('5 at 9')]
    for (const one of cells.slice(0, 2)) page.it.type(one, '8.9')
    await page.it.takeAll(cells)
    expect(sent()).toHaveLength(2)
    expect(Object.keys(page.it.typed.value)).toEqual(['5 at 3'])
  })
})

const hole = (number: number, more: object = {}) => ({
  hole_id: `h${number}`,
  number,
  liner: null,
  last_cut: null,
  ...more,
})
const liner = (mark: string, at: number | null = null) => ({ liner: { mark }, hole: at })
const BLOCK = {
  holes: [
    hole(1, { liner: { mark: 'A' } }),
    hole(2),
    hole(3, { last_cut: { cut_id: 'c3', shim_um: '508' } }),
  ],
  liners: [liner('A', 1), liner('B'), liner('C')],
} as unknown as BlockView

describe('liners that go in hole by hole', () => {
  let server: FakeServer
  let undo: ReturnType<typeof undoOf>
  let page: Mounted<FitRows>
  beforeEach(async () => {
    server = aroundPage('thou')
    server.answer('/api/holes/h3/cut-plan', { body: { liner_mark: 'B' } })
    undo = undoOf()
    page = await mounted(() => useFitRows(jobOf(BLOCK), undo as unknown as Undo, () => BLOCK))
    await settled()
  })
  afterEach(() => {
    page.app.unmount()
    vi.unstubAllGlobals()
  })
  const draft = (id: string) => {
    const found = page.it.drafts.value[id]
    if (!found) throw new Error(id)
    return found
  }
  const sent = () => server.asked.filter((one) => one.method === 'POST')

  it('proposes for a hole the liner and shim it was cut for, for others what is on the bench', () => {
    expect(page.it.open.value.map((one) => one.number)).toEqual([2, 3])
    expect(draft('h3')).toMatchObject({ liner: 'B', shim: '20 thou', cut: 'c3', ready: false })
    expect(draft('h2')).toMatchObject({ liner: 'C', shim: '', cut: '' })
  })

  it('records those that were looked at, each with what was looked at', async () => {
    server.answer('/api/holes/h3/fittings', { status: 201, body: {} })
    draft('h3').ready = true
    draft('h3').measured = '20.1'
    await page.it.record()
    expect(sent().map((one) => one.path)).toEqual(['/api/holes/h3/fittings'])
    expect(sent()[0]?.body).toMatchObject({
      liner_mark: 'B',
      shims: [{ nominal: '20 thou', measured: '20.1', side_up: 'bevel down' }],
      ready: READY,
      confirmed: false,
    })
    expect(page.it.drafts.value['h3']).toBeUndefined()
    expect(undo.did).toHaveBeenCalledOnce()
  })

  it('keeps one that is refused as it was typed, and sends it again under the same id', async () => {
    server.answer(
      '/api/holes/h3/fittings',
      {
        status: 422,
        body: {
          ...refusalBody('slip', 'Measured?'),
          problems: [{ field: 'shims.0.measured', message: 'Measured?' }],
        },
      },
      { status: 201, body: {} },
    )
    draft('h3').measured = '2'
    await page.it.again(BLOCK.holes[2] as never, false)
    expect(page.it.asked['h3']?.message).toBe('Measured?')
    expect([page.it.busy.value, draft('h3').measured]).toEqual([false, '2'])
    await page.it.answer(BLOCK.holes[2] as never, { text: '20.1 thou', confirm: false, label: '' })
    const [first, second] = sent().map(
      (one) => one.body as { fitting_id: string; shims: { measured: string }[] },
    )
    expect(second?.fitting_id).toBe(first?.fitting_id)
    expect(second?.shims[0]?.measured).toBe('20.1 thou')
  })

  it('goes past a hold with the reason that was given', async () => {
    server.answer('/api/holes/h2/fittings', { status: 201, body: {} })
    await page.it.again(BLOCK.holes[1] as never, true, 'the owner stands beside it')
    expect(sent()[0]?.body).toMatchObject({
      confirmed: true,
      hold_reason: 'the owner stands beside it',
      shims: [],
      ready: [],
    })
  })
})
