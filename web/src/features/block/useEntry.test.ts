import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, ref, shallowRef } from 'vue'

import type { BlockView } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { linkUp } from '@/shared/state/link'
import { waiting } from '@/shared/state/outbox'
import { personId, unit } from '@/shared/state/preferences'
import { shelf } from '@/shared/state/shelf'
import type { Undo } from '@/shared/state/useUndo'
import { mounted, type Mounted } from '@/testing/mounted'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import type { BlockPlace } from './place'
import type { Bores } from './useBores'
import { type Entry, useEntry } from './useEntry'

const PARSE = '/api/compute/parse'
const READINGS = '/api/jobs/j/readings'
const parsed = (more: object = {}) => ({
  body: {
    value_um: '40.6',
    value_m: 40.6e-6,
    typed: '1.6',
    hole: 5,
    hour: 6,
    level_um: null,
    axis_deg: null,
    ...more,
  },
})
const taken = { status: 201, body: { reading_id: 'r', event: 9, typed: '1.6', typed_unit: 'thou' } }
const block = {
  holes: [4, 5].map((number) => ({ number, marks: [], missing_hours: [9], parts: { ledge_depths: [] } })),
  card: { required_hours: [12, 3, 6, 9] },
  setups: [],
  readings: [],
} as unknown as BlockView

describe('the entry line of the block', () => {
  let server: FakeServer
  let view: Mounted<Entry>
  let went: object[]
  let undo: { events: (number | null)[]; said: { value: string } }

  beforeEach(async () => {
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
    localStorage.clear()
    server = fakeServer()
    linkUp.value = true
    personId.value = 'wren'
    unit.value = 'thou'
    went = []
    const events: (number | null)[] = []
    const said = ref('')
    undo = { events, said }
    const job = {
      jobId: 'j',
      block: shallowRef(block),
      seenAt: ref(null),
      refusal: ref(null),
    } as unknown as JobNow
    const place = {
      lens: computed(() => 'protrusion'),
      quantity: computed(() => 'protrusion'),
      number: computed(() => 5),
      hour: computed(() => 3),
      go: (to: object) => void went.push(to),
    } as unknown as BlockPlace
    const bores = {
      deviates: ref(false),
      levels: ref([]),
      axes: ref([]),
      level: ref(null),
      axis: ref(null),
      data: ref(null),
    }
    const own = {
      said,
      inTurn: <T>(work: () => Promise<T>) => work(),
      took: (event: number | null) => void events.push(event),
    }
    view = await mounted(() => useEntry(job, place, bores as unknown as Bores, own as unknown as Undo))
  })
  afterEach(async () => {
    view.app.unmount()
    await (await shelf()).clear('waiting')
    waiting.value = []
    vi.unstubAllGlobals()
  })
  const sent = (path: string) => server.asked.filter((one) => one.path === path).map((one) => one.body)
  const type = async (text: string) => {
    view.it.type(text)
    await settled()
  }

  it('says what a line will be before it is taken, with where it stands now', async () => {
    server.answer(PARSE, parsed())
    await type('5 6h 1.6')
    expect(sent(PARSE)[0]).toMatchObject({
      text: '5 6h 1.6',
      holes: [4, 5],
      present_hole: 5,
      present_hour: 3,
    })
    expect(view.it.preview.value).toEqual({ hole: 5, hour: 6, value: 40.6e-6 })
    expect(sent(READINGS)).toEqual([])
  })

  it('says quietly why what is typed so far is no reading', async () => {
    server.answer(PARSE, { status: 422, body: refusalBody('wrong', '“h” is not understood.') })
    await type('5 h')
    expect(view.it.notYet.value).toBe('“h” is not understood.')
    expect(view.it.refusal.value).toBeNull()
    expect(view.it.preview.value).toBeNull()
  })

  it('takes a reading once, forgets the line and goes on', async () => {
    server.answer(PARSE, parsed())
    server.answer(READINGS, taken)
    await type('5 6h 1.6')
    await Promise.all([view.it.take(), view.it.take()])
    await settled()
    expect(sent(READINGS)).toHaveLength(1)
    expect(sent(READINGS)[0]).toMatchObject({
      hole: 5,
      hour: 6,
      text: '1.6',
      person_id: 'wren',
      bare_unit: 'thou',
    })
    expect(view.it.draft.value.text).toBe('')
    expect(undo.events).toEqual([9])
    expect(went).toHaveLength(1)
  })

  it('only moves where a place was typed and no value', async () => {
    server.answer(PARSE, parsed({ value_um: null, value_m: null, hour: 9 }))
    await type('5 9h')
    await view.it.take()
    expect(went).toEqual([{ hole: 5, hour: 9 }])
    expect(sent(READINGS)).toEqual([])
  })

  it('keeps the line where it is asked back, and sends the answer under the same id', async () => {
    server.answer(PARSE, parsed())
    server.answer(READINGS, { status: 409, body: refusalBody('read before', 'Is it a repeat?') }, taken)
    await type('5 6h 1.6')
    await view.it.take()
    expect(view.it.refusal.value?.code).toBe('read before')
    expect(view.it.draft.value.text).toBe('5 6h 1.6')
    await view.it.take({ readBefore: 'correct' })
    const ids = sent(READINGS).map((one) => (one as { reading_id: string }).reading_id)
    expect(ids[0]).toBe(ids[1])
    expect(sent(READINGS)[1]).toMatchObject({ read_before: 'correct', new_pass: false })
    expect(view.it.refusal.value).toBeNull()
  })

  it('opens a new pass where that is the answer', async () => {
    server.answer(PARSE, parsed())
    server.answer(READINGS, taken)
    await type('1.6')
    await view.it.take({ readBefore: 'new pass' })
    expect(sent(READINGS)[0]).toMatchObject({ read_before: '', new_pass: true })
  })

  it('takes the unit that was meant when the parser asks', async () => {
    const asks = {
      ...refusalBody('asks', 'mil?'),
      suggestions: [{ label: '2 thou', text: '2 thou', confirm: false }],
    }
    server.answer(
      PARSE,
      { status: 422, body: asks },
      { status: 422, body: asks },
      parsed({ typed: '2 thou' }),
    )
    server.answer(READINGS, taken)
    await type('2 mil')
    await view.it.take()
    const [suggestion] = view.it.refusal.value?.suggestions ?? []
    if (suggestion) await view.it.answer(suggestion)
    await settled()
    expect(sent(READINGS)[0]).toMatchObject({ text: '2 thou' })
  })

  it('keeps the line for later while the link is down, with the place chosen now', async () => {
    server.answer(PARSE, 'away')
    await type('6h 1.6')
    await view.it.take()
    await settled()
    expect(waiting.value).toHaveLength(1)
    expect(waiting.value[0]?.body).toMatchObject({ hole: 5, hour: 3, text: '6h 1.6' })
    expect(view.it.draft.value.text).toBe('')
    expect(linkUp.value).toBe(false)
  })

  it('drops what is asked about, and says that it was not recorded', async () => {
    server.answer(PARSE, parsed())
    server.answer(READINGS, { status: 409, body: refusalBody('asks', 'A slip?') })
    await type('1.6')
    await view.it.take()
    view.it.drop()
    expect(view.it.refusal.value).toBeNull()
    expect(undo.said.value).toContain('was not recorded')
    expect(view.it.draft.value.text).toBe('1.6')
  })

  it('has nothing to take from an empty line', async () => {
    await type('   ')
    await view.it.take()
    expect(server.asked).toEqual([])
  })

  it('keeps what is typed on while a reading is under way', async () => {
    let answer: (body: unknown) => void = () => undefined
    server.answer(PARSE, parsed())
    server.answer(READINGS, new Promise((resolve) => (answer = resolve)))
    await type('5 6h 1.6')
    const taking = view.it.take()
    await settled()
    view.it.type('1.7')
    answer(taken.body)
    await taking
    expect(view.it.draft.value.text).toBe('1.7')
  })

  it('drops a refusal with the line that was emptied meanwhile: there is nothing left to answer', async () => {
    let refuse: (body: unknown) => void = () => undefined
    server.answer(PARSE, parsed(), new Promise((_, fail) => (refuse = fail)))
    await type('hello')
    const taking = view.it.take()
    await settled()
    view.it.type('')
    refuse({ status: 422, body: refusalBody('wrong', 'Not understood.') })
    await taking
    expect(view.it.refusal.value).toBeNull()
  })

  it('keeps for later what was sent, not what is typed by then', async () => {
    let fail: (body: unknown) => void = () => undefined
    server.answer(PARSE, parsed(), parsed())
    server.answer(READINGS, new Promise((_, reject) => (fail = reject)))
    await type('1.6')
    const taking = view.it.take()
    await settled()
    view.it.type('1.7')
    fail('away')
    await taking
    expect(waiting.value[0]?.body.text).toBe('1.6')
    expect(view.it.draft.value.text).toBe('1.7')
  })
})
