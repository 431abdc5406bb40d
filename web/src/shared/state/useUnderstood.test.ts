import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type Ref, ref } from 'vue'

import { aroundPage } from '@/testing/around'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, settled } from '@/testing/server'

import { unit } from './preferences'
import { useUnderstood } from './useUnderstood'

const PARSE = '/api/compute/parse'

describe('what a typed reading will be taken for', () => {
  let server: FakeServer
  let text: Ref<string>
  let zero: number
  let page: Mounted<Ref<string>>
  beforeEach(async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    server = aroundPage('µm')
    text = ref('')
    zero = 0
    page = await mounted(() =>
      useUnderstood(
        () => text.value,
        () => 'protrusion',
        () => 'µm',
        () => zero,
      ),
    )
  })
  afterEach(() => {
    page.app.unmount()
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })
  const type = async (typed: string) => {
    text.value = typed
    await vi.advanceTimersByTimeAsync(200)
    vi.useRealTimers()
    await settled()
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  }

  it('is said in both units, and asked for once the hand rests', async () => {
    server.answer(PARSE, { body: { value_m: 42e-6, is_whole_size: false } })
    text.value = '4'
    await vi.advanceTimersByTimeAsync(100)
    expect(server.asked).toEqual([])
    await type('42')
    expect(page.it.value).toBe('+42 µm, +1.7 thou')
    expect(server.asked).toHaveLength(1)
    expect(server.asked[0]?.body).toMatchObject({
      text: '42',
      bare_unit: 'µm',
      quantity: 'protrusion',
      zero_um: null,
    })
  })

  it('comes again in the unit that is chosen then', async () => {
    server.answer(PARSE, { body: { value_m: 25.4e-6, is_whole_size: false } })
    await type('1 thou')
    unit.value = 'thou'
    await type('1 thou')
    expect(page.it.value).toBe('+1.0 thou, +25 µm')
  })

  it('reads a very small length back with what was typed of it', async () => {
    server.answer(PARSE, { body: { value_m: 0.04e-6, is_whole_size: false } })
    await type('0.04')
    expect(page.it.value).toContain('+0.040 µm')
  })

  it('names the whole size where one was typed', async () => {
    zero = 0.1
    server.answer(PARSE, { body: { value_m: 12e-6, is_whole_size: true } })
    await type('100.012')
    expect(page.it.value).toContain('the size 100.012')
    expect(server.asked[0]?.body).toMatchObject({ zero_um: '100000' })
  })

  it('stays silent where nothing is typed, or it is no reading yet', async () => {
    server.answer(PARSE, {
      status: 422,
      body: { code: 'wrong input', message: '', problems: [], suggestions: [] },
    })
    await type('a hair')
    expect(page.it.value).toBe('')
    await type('  ')
    expect(server.asked).toHaveLength(1)
  })

  it('drops an answer that comes after more was typed', async () => {
    let late: (value: unknown) => void = () => undefined
    server.answer(PARSE, new Promise((done) => (late = done)), {
      body: { value_m: 42e-6, is_whole_size: false },
    })
    await type('4')
    await type('42')
    late({ value_m: 4e-6, is_whole_size: false })
    await type('42')
    expect(page.it.value).toBe('+42 µm, +1.7 thou')
  })
})
