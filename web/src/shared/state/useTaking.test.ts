import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import { linkUp } from './link'
import { waiting } from './outbox'
import { personId } from './preferences'
import { shelf } from './shelf'
import { type Capture, type CaptureSpot, useCapture } from './useCapture'
import { type Taking, useTaking, useTakingKeys, useTypingAnywhere } from './useTaking'
import type { Undo } from './useUndo'

const READINGS = '/api/jobs/j/readings'
const taken = (event: number, typed = '1.6') => ({
  status: 201,
  body: { reading_id: `r${event}`, typed, typed_unit: 'thou', event },
})
const spot = (key: string): CaptureSpot => ({
  key,
  name: `place ${key}`,
  quantity: 'protrusion',
  part: 'hole-5',
  place: {},
  where: { hole: 5, hour: Number(key) },
  bareUnit: 'thou',
  unreadable: '',
  opensSet: false,
})

/** An undo that knows what it was told. */
function undoKnown() {
  const events: (number | null)[] = []
  let undone = 0
  const undo = {
    said: ref(''),
    inTurn: <T>(work: () => Promise<T>) => work(),
    took: (event: number | null) => void events.push(event),
    did: () => undefined,
    undo: () => {
      undone++
      undo.said.value = 'hole 5: 54'
      return Promise.resolve(true)
    },
  }
  return { undo: undo as unknown as Undo, events, undone: () => undone }
}

describe('taking at a bench', () => {
  let server: FakeServer
  let at: string | null
  let done: string[]
  let gauge: string | null
  let known: ReturnType<typeof undoKnown>
  let bench: Mounted<{ capture: Capture; taking: Taking }>
  const line = { focus: vi.fn(), blur: vi.fn() }
  const moves = { on: 0, back: 0 }

  beforeEach(async () => {
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
    server = fakeServer()
    localStorage.clear()
    linkUp.value = true
    personId.value = 'wren'
    at = '6'
    done = []
    gauge = '1.62'
    known = undoKnown()
    moves.on = moves.back = 0
    line.focus.mockReset()
    bench = await mounted(() => {
      const capture = useCapture(
        'j',
        known.undo,
        () => (at === null ? null : spot(at)),
        (now) => {
          done.push(now.key)
          return Promise.resolve()
        },
      )
      const taking = useTaking({
        drafts: 'drafts',
        spot: () => at ?? '',
        capture,
        said: () => gauge,
        trouble: () => 'The gauge is silent.',
        line: () => line,
      })
      useTakingKeys(capture, taking, { ArrowRight: () => void moves.on++, '[': () => void moves.back++ })
      useTypingAnywhere(taking, () => line)
      return { capture, taking }
    })
  })
  afterEach(async () => {
    bench.app.unmount()
    await (await shelf()).clear('waiting')
    waiting.value = []
    vi.unstubAllGlobals()
  })
  const bodies = () => server.asked.map((one) => one.body as Record<string, unknown>)
  async function press(key: string, more: KeyboardEventInit = {}): Promise<void> {
    window.dispatchEvent(new KeyboardEvent('keydown', { key, cancelable: true, ...more }))
    await settled()
  }

  it('takes what the gauge says for the spot at hand, and goes on', async () => {
    server.answer(READINGS, taken(8))
    await press(' ')
    expect(bodies()).toMatchObject([{ hole: 5, hour: 6, text: '1.62', person_id: 'wren', read_before: '' }])
    expect(done).toEqual(['6'])
    expect(bench.it.capture.taken.words.value).toBe('place 6: 1.6 thou')
    expect(known.events).toEqual([8])
  })

  it('says what is in the way where the gauge says nothing, and sends nothing', async () => {
    gauge = null
    await press('PageDown')
    expect(bench.it.capture.taken.missed.value).toBe('The gauge is silent.')
    expect(server.asked).toEqual([])
  })

  it('takes nothing twice while the reading before is under way', async () => {
    let answer: (body: unknown) => void = () => undefined
    server.answer(READINGS, new Promise((resolve) => (answer = resolve)))
    bench.it.taking.takeFromGauge()
    bench.it.taking.takeFromGauge()
    await settled()
    expect(bench.it.capture.busy.value).toBe(true)
    answer(taken(8).body)
    await settled()
    expect(server.asked).toHaveLength(1)
    expect(done).toEqual(['6'])
  })

  it('lets what is typed meanwhile wait its turn, and sends it once', async () => {
    let answer: (body: unknown) => void = () => undefined
    server.answer(READINGS, new Promise((resolve) => (answer = resolve)), taken(9, '1.7'))
    bench.it.taking.takeFromGauge()
    bench.it.taking.typed.value = '1.7'
    void bench.it.taking.takeTyped()
    void bench.it.taking.takeTyped()
    await settled()
    expect(server.asked).toHaveLength(1)
    answer(taken(8).body)
    await settled()
    expect(bodies().map((one) => one.text)).toEqual(['1.62', '1.7'])
    expect(bench.it.taking.typed.value).toBe('')
  })

  it('leaves what was typed for a spot there when the bench went on to another', async () => {
    let answer: (body: unknown) => void = () => undefined
    server.answer(READINGS, new Promise((resolve) => (answer = resolve)))
    bench.it.taking.takeFromGauge()
    bench.it.taking.typed.value = '1.7'
    void bench.it.taking.takeTyped()
    at = '9'
    answer(taken(8).body)
    await settled()
    expect(server.asked).toHaveLength(1)
    at = '6'
    bench.it.taking.typed.value += ''
    expect(bench.it.taking.typed.value).toBe('1.7')
  })

  it('stays where it is when asked back, and goes on with the answer', async () => {
    server.answer(READINGS, { status: 409, body: refusalBody('read before', 'Is it a repeat?') }, taken(9))
    await press('F8')
    expect(bench.it.capture.refusal.value?.code).toBe('read before')
    expect(done).toEqual([])
    await press('r')
    expect(bodies()[1]).toMatchObject({ read_before: 'repeat' })
    // The same reading: its id is the one sent before only where what is said of it is the same.
    expect(bodies()[1]?.reading_id).not.toBe(bodies()[0]?.reading_id)
    expect(done).toEqual(['6'])
    expect(bench.it.capture.refusal.value).toBeNull()
  })

  it('reads r as a repeat from the gauge where nothing is asked, and c as nothing', async () => {
    server.answer(READINGS, taken(8))
    await press('c')
    expect(server.asked).toEqual([])
    await press('r')
    expect(bodies()[0]).toMatchObject({ read_before: 'repeat' })
  })

  it('takes what is typed, keeps it where it is refused, forgets it once taken', async () => {
    server.answer(
      READINGS,
      { status: 422, body: refusalBody('wrong', 'That is no length.') },
      taken(9, '1.7'),
    )
    bench.it.taking.typed.value = 'abc'
    await bench.it.taking.takeTyped()
    await settled()
    expect(bench.it.taking.typed.value).toBe('abc')
    expect(line.focus).toHaveBeenCalled()
    bench.it.taking.typed.value = '1.7'
    await bench.it.taking.takeTyped()
    await settled()
    expect(bench.it.taking.typed.value).toBe('')
    expect(bodies().map((one) => one.text)).toEqual(['abc', '1.7'])
  })

  it('drops what is asked about without taking anything back, then takes back what the button names', async () => {
    server.answer(READINGS, { status: 409, body: refusalBody('asks', 'Is it a slip?') })
    await press(' ')
    await press('z', { ctrlKey: true })
    expect(bench.it.capture.refusal.value).toBeNull()
    expect(known.undone()).toBe(0)
    await press('z', { ctrlKey: true })
    expect(known.undone()).toBe(1)
  })

  it('keeps a reading that was not answered, and goes on all the same', async () => {
    server.answer(READINGS, 'away')
    await press(' ')
    expect(waiting.value).toHaveLength(1)
    expect(linkUp.value).toBe(false)
    expect(bench.it.capture.taken.words.value).toContain('waiting for the link')
    expect(done).toEqual(['6'])
    expect(known.events).toEqual([null])
  })

  it('moves by the keys it is given, and lets digits open the line', async () => {
    await press('ArrowRight')
    await press('[')
    expect(moves).toEqual({ on: 1, back: 1 })
    await press('1')
    await press('.')
    expect(bench.it.taking.typed.value).toBe('1.')
    expect(line.focus).toHaveBeenCalled()
    await press('ArrowRight', { ctrlKey: true })
    expect(moves.on).toBe(1)
  })

  it('leaves keys alone while something is typed', async () => {
    const input = document.createElement('input')
    document.body.append(input)
    input.value = '1'
    for (const key of ['r', 'ArrowRight', '5', ' ']) {
      input.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
    }
    await settled()
    expect(server.asked).toEqual([])
    expect(moves.on).toBe(0)
    input.remove()
  })

  it('has nothing to take where there is no spot', async () => {
    at = null
    await press(' ')
    expect(server.asked).toEqual([])
    expect(await bench.it.capture.sayUnreadable(true, 'a stud')).toBe(false)
  })

  it('says a place cannot be read, with its reason', async () => {
    server.answer(/unreadable$/, { status: 201, body: { job_id: 'j' } })
    expect(await bench.it.capture.sayUnreadable(true, 'a stud')).toBe(true)
    expect(server.asked[0]?.path).toBe('/api/jobs/j/surveys/protrusion/hole-5/unreadable')
    expect(bodies()[0]).toMatchObject({ unreadable: true, reason: 'a stud', person_id: 'wren' })
  })
})
