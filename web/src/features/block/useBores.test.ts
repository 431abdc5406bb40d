import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'

import type { BlockView } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, fakeServer, settled } from '@/testing/server'

import { type BlockPlace, useBlockPlace } from './place'
import { type Bores, useBores } from './useBores'

const BORES = '/api/jobs/j/bores/block bore'
const block = (event: number) =>
  ({
    event,
    lenses: [
      { name: 'bore', quantities: ['block bore', 'liner bore'], waits_for: [] },
      { name: 'protrusion', quantities: ['protrusion'], waits_for: [] },
    ],
  }) as unknown as BlockView
const levels = [0.01, 0.1, 0.2].map((depth_m, index) => ({
  name: ['top', 'middle', 'bottom'][index],
  depth_m,
}))
const bores = (event: number, outAt: string | null = null) => ({
  body: {
    event,
    setup: null,
    bores: [1, 2].map((hole) => ({
      hole,
      survey: {
        pattern: { levels, axes_deg: [0, 90] },
        part: { state: outAt && hole === 2 ? 'out' : 'in' },
        places: outAt && hole === 2 ? [{ place: { level_um: outAt }, state: 'out' }] : [],
      },
    })),
  },
})

describe('the bores of a block', () => {
  let server: FakeServer
  let now: ReturnType<typeof shallowRef<BlockView | null>>
  let view: Mounted<{ place: BlockPlace; bores: Bores }>
  const open = async (address: string) => {
    now = shallowRef<BlockView | null>(block(1))
    const job = { jobId: 'j', block: now, seenAt: ref(null), refusal: ref(null) } as unknown as JobNow
    view = await mounted(
      () => {
        const place = useBlockPlace(() => now.value ?? null)
        return { place, bores: useBores(job, place) }
      },
      address,
      { block: '/jobs/:job/:lens/:hole?' },
    )
    await settled()
    return view.it
  }
  const asked = () => server.asked.filter((one) => one.path === BORES).length
  beforeEach(() => {
    server = fakeServer()
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
  })
  afterEach(() => {
    view.app.unmount()
    vi.unstubAllGlobals()
  })

  it('are there before their lens is looked at, and cost nothing while another one is', async () => {
    server.answer(BORES, bores(1))
    const { place, bores: all } = await open('/jobs/j/protrusion/1')
    expect(all.data.value?.bores).toHaveLength(2)
    now.value = block(2)
    await settled()
    expect(asked()).toBe(1)
    server.answer(BORES, bores(2))
    place.go({ lens: 'bore' })
    await settled()
    expect(asked()).toBe(2)
    expect(all.data.value?.event).toBe(2)
  })

  it('follow every change while they are looked at', async () => {
    server.answer(BORES, bores(1), bores(2))
    const { bores: all } = await open('/jobs/j/bore/1')
    now.value = block(2)
    await settled()
    expect(all.data.value?.event).toBe(2)
  })

  it('stand at the level that is out, else at the middle one, else where the address says', async () => {
    server.answer(BORES, bores(1, '200000'))
    const { place, bores: all } = await open('/jobs/j/bore')
    expect(all.level.value?.name).toBe('bottom')
    place.go({ hole: 1 })
    await settled()
    expect(all.level.value?.name).toBe('middle')
    place.go({ level: '10000' })
    await settled()
    expect(all.level.value?.name).toBe('top')
  })

  it('step down the levels without falling off, and round the axes', async () => {
    server.answer(BORES, bores(1))
    const { bores: all } = await open('/jobs/j/bore/1')
    for (const way of [1, 1, 1] as const) {
      all.stepLevel(way)
      await settled()
    }
    expect(all.level.value?.name).toBe('bottom')
    all.stepAxis(1)
    await settled()
    expect(all.axis.value).toBe(0)
    all.stepAxis(-1)
    await settled()
    expect(all.axis.value).toBe(90)
    expect(all.level.value?.name).toBe('bottom')
  })

  it('another bore is asked for under its own name', async () => {
    server.answer(BORES, bores(1))
    server.answer('/api/jobs/j/bores/liner bore', bores(1))
    const { place } = await open('/jobs/j/bore/1')
    place.go({ of: 'liner bore' })
    await settled()
    expect(place.quantity.value).toBe('liner bore')
    expect(server.asked.at(-1)?.path).toBe('/api/jobs/j/bores/liner bore')
    place.go({ hole: 2 })
    await settled()
    expect(place.quantity.value).toBe('liner bore')
    place.go({ of: 'block bore' })
    await settled()
    expect(place.quantity.value).toBe('block bore')
  })
})
