import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref, shallowRef } from 'vue'

import type { BlockView, HoleView } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { linkUp } from '@/shared/state/link'
import type { Undo } from '@/shared/state/useUndo'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, fakeServer, settled } from '@/testing/server'

import { type Bench, useBench } from './useBench'

const READINGS = '/api/jobs/j/readings'
const hole = (number: number, read: number[], more: Partial<HoleView> = {}): HoleView =>
  ({
    number,
    liner: { mark: `L${number}` },
    as_found: false,
    marks: read.map((hour) => ({ hour })),
    unreadable: [],
    parts: { ledge_depths: [] },
    ...more,
  }) as unknown as HoleView
const block = (...holes: HoleView[]) =>
  ({ holes, card: { required_hours: [12, 3, 6, 9] }, setups: [] }) as unknown as BlockView

describe('the bench of a block', () => {
  let server: FakeServer
  let view: Mounted<Bench>
  let now: ReturnType<typeof shallowRef<BlockView>>
  let said: ReturnType<typeof ref<string>>
  const open = async (address: string, first: BlockView) => {
    now = shallowRef(first)
    said = ref('')
    const job = { jobId: 'j', block: now, reload: () => Promise.resolve() } as unknown as JobNow
    const undo = {
      said,
      inTurn: <T>(work: () => Promise<T>) => work(),
      took: () => undefined,
      undo: () => Promise.resolve(true),
    } as unknown as Undo
    view = await mounted(() => useBench(job, undo), address, { bench: '/jobs/:job/bench/:lens/:hole?' })
    return view.it
  }
  beforeEach(() => {
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
    server = fakeServer()
    server.answer(READINGS, {
      status: 201,
      body: { reading_id: 'r', typed: '1', typed_unit: 'thou', event: 5 },
    })
    localStorage.clear()
    linkUp.value = true
  })
  afterEach(() => {
    view.app.unmount()
    vi.unstubAllGlobals()
  })

  it('stands at the first position that is missing', async () => {
    const bench = await open('/jobs/j/bench/protrusion', block(hole(1, [12, 3, 6, 9]), hole(2, [12])))
    expect(bench.spot.value).toEqual({ hole: 2, hour: 3 })
    expect(bench.missing.value).toHaveLength(3)
  })

  it('passes over what cannot be read, and holes without a liner', async () => {
    const stud = hole(1, [12], { unreadable: [{ hour: 3, reason: 'a stud' }] })
    const bench = await open('/jobs/j/bench/protrusion', block(stud, hole(2, [], { liner: null })))
    expect(bench.spot.value).toEqual({ hole: 1, hour: 6 })
    expect(bench.missing.value.map((one) => one.hole)).toEqual([1, 1])
  })

  it('reads ledges of open holes too', async () => {
    const bench = await open('/jobs/j/bench/counterbore', block(hole(1, [], { liner: null })))
    expect(bench.quantity.value).toBe('counterbore depth')
    expect(bench.spot.value).toEqual({ hole: 1, hour: 12 })
  })

  it('takes for the spot at hand and goes to the next', async () => {
    const bench = await open('/jobs/j/bench/protrusion', block(hole(1, []), hole(2, [])))
    await bench.take({ text: '1.6' })
    await settled()
    expect(server.asked[0]?.body).toMatchObject({ hole: 1, hour: 12, new_pass: false })
    expect(view.router.currentRoute.value.params['hole']).toBe('1')
    expect(view.router.currentRoute.value.query['at']).toBe('3')
  })

  it('stays at the position just read for who went back to it meanwhile', async () => {
    let answer: (body: unknown) => void = () => undefined
    server.answer(READINGS, new Promise((resolve) => (answer = resolve)))
    const bench = await open('/jobs/j/bench/protrusion', block(hole(1, [])))
    const taking = bench.take({ text: '1.6' })
    await settled()
    for (const by of [1, -1] as const) {
      bench.step(by)
      await settled()
    }
    answer({ reading_id: 'r', typed: '1', typed_unit: 'thou', event: 5 })
    await taking
    await settled()
    expect(bench.spot.value).toEqual({ hole: 1, hour: 12 })
  })

  it('measures the whole block anew in a pass: each hole opens its set once', async () => {
    const all = block(hole(1, [12, 3, 6, 9]), hole(2, [12, 3, 6, 9]))
    const bench = await open('/jobs/j/bench/protrusion', all)
    expect(bench.missing.value).toEqual([])
    bench.startPass()
    await settled()
    expect(bench.spot.value).toEqual({ hole: 1, hour: 12 })
    for (let reading = 0; reading < 8; reading++) {
      await bench.take({ text: '1.6' })
      await settled()
    }
    const sent = server.asked.map((one) => one.body as { hole: number; new_pass: boolean })
    expect(sent.map((one) => one.hole)).toEqual([1, 1, 1, 1, 2, 2, 2, 2])
    expect(sent.map((one) => one.new_pass)).toEqual([true, false, false, false, true, false, false, false])
    expect(bench.pass.value).toBeNull()
  })

  it('goes back to what was taken back in a pass', async () => {
    const bench = await open('/jobs/j/bench/protrusion', block(hole(1, [12, 3, 6, 9])))
    bench.startPass()
    await settled()
    await bench.take({ text: '1.6' })
    await settled()
    expect(bench.pass.value?.done).toEqual(['1·12'])
    said.value = 'hole 1: 1.6'
    await nextTick()
    await settled()
    expect(bench.pass.value?.done).toEqual([])
    expect(bench.spot.value).toEqual({ hole: 1, hour: 12 })
  })

  it('steps round the clock and on to the next hole', async () => {
    const bench = await open('/jobs/j/bench/protrusion/1?at=9', block(hole(1, []), hole(2, [])))
    bench.step(1)
    await settled()
    expect(bench.spot.value).toEqual({ hole: 2, hour: 12 })
    bench.step(-1)
    await settled()
    expect(bench.spot.value).toEqual({ hole: 1, hour: 9 })
  })

  it('shows the hole that the address names where nothing is missing', async () => {
    const bench = await open(
      '/jobs/j/bench/protrusion/2',
      block(hole(1, [12, 3, 6, 9]), hole(2, [12, 3, 6, 9])),
    )
    expect(bench.spot.value).toEqual({ hole: 2, hour: 12 })
    expect(bench.hole.value?.number).toBe(2)
  })
})
