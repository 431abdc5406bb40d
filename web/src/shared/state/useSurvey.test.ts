import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import type { PlaceReadView } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { linkUp } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import type { Undo } from '@/shared/state/useUndo'
import { type Mounted, mounted } from '@/testing/mounted'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import { placeKey } from './places'
import { type SurveyBench, useSurvey } from './useSurvey'

const SURVEY = /\/surveys\/block bore\/hole-[12]$/
const READINGS = '/api/jobs/j/readings'

const row = (level_um: string, axis_deg: number, read = false): PlaceReadView =>
  ({
    place: { hour: null, level_um, axis_deg, along_um: null, across_um: null },
    name: `${level_um} at ${axis_deg}`,
    on_pattern: true,
    readings: read ? [{ event: 1 }] : [],
    value_m: read ? 0.1 : null,
    unreadable: '',
  }) as unknown as PlaceReadView
const survey = (read: number[] = [], setup: object | null = null, part = 'hole-1') => ({
  body: {
    part: { key: part, title: part, hole: 1 },
    is_size: true,
    is_diameter: true,
    setup,
    places: [row('10000', 0), row('10000', 90), row('50000', 0), row('50000', 90)].map((one, index) =>
      read.includes(index) ? row(String(one.place.level_um), one.place.axis_deg ?? 0, true) : one,
    ),
    doubts: [],
  },
})

describe('a survey at the bench', () => {
  let server: FakeServer
  let view: Mounted<SurveyBench>
  const job = { jobId: 'j', block: ref(null), reload: () => Promise.resolve() } as unknown as JobNow
  const undo = {
    said: ref(''),
    inTurn: <T>(work: () => Promise<T>) => work(),
    took: () => undefined,
    undo: () => Promise.resolve(true),
  } as unknown as Undo
  const open = async (address = '/measure/block bore/hole-1') => {
    view = await mounted(() => useSurvey(job, undo), address, { survey: '/measure/:quantity/:part' })
    await settled()
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
    linkUp.value = true
    unit.value = 'thou'
  })
  afterEach(() => {
    view.app.unmount()
    vi.unstubAllGlobals()
  })

  it('begins at the first place that nobody read', async () => {
    server.answer(SURVEY, survey([0]))
    const bench = await open()
    expect(bench.here.value?.name).toBe('10000 at 90')
    expect(bench.missing.value).toHaveLength(3)
  })

  it('begins at the first place of all where everything is read', async () => {
    server.answer(SURVEY, survey([0, 1, 2, 3]))
    const bench = await open()
    expect(bench.here.value?.name).toBe('10000 at 0')
    expect(bench.missing.value).toEqual([])
  })

  it('stands where the address says, over a reload too', async () => {
    server.answer(SURVEY, survey())
    const at = placeKey(row('50000', 90).place)
    const bench = await open(`/measure/block bore/hole-1?at=${encodeURIComponent(at)}`)
    expect(bench.here.value?.name).toBe('50000 at 90')
  })

  it('reads the place at hand with its level and axis, then goes to the next', async () => {
    server.answer(SURVEY, survey(), survey([0]))
    server.answer(READINGS, {
      status: 201,
      body: { reading_id: 'r', typed: '4.1', typed_unit: 'inch', event: 2 },
    })
    const bench = await open()
    expect(await bench.take({ text: '4.1' })).toBe(true)
    await settled()
    expect(server.asked.find((one) => one.path === READINGS)?.body).toMatchObject({
      quantity: 'block bore',
      part: 'hole-1',
      level_um: '10000',
      axis_deg: 0,
      bare_unit: 'inch',
    })
    expect(bench.here.value?.name).toBe('10000 at 90')
  })

  it('stays where somebody moved while a reading was under way', async () => {
    server.answer(SURVEY, survey(), survey([0]))
    let answer: (body: unknown) => void = () => undefined
    server.answer(READINGS, new Promise((resolve) => (answer = resolve)))
    const bench = await open()
    const taking = bench.take({ text: '4.1' })
    await settled()
    await bench.go(placeKey(row('50000', 0).place))
    answer({ reading_id: 'r', typed: '4.1', typed_unit: 'inch', event: 2 })
    await taking
    await settled()
    expect(bench.here.value?.name).toBe('50000 at 0')
  })

  it('stays at the place just read for who went back to it meanwhile', async () => {
    server.answer(SURVEY, survey(), survey([0]))
    let answer: (body: unknown) => void = () => undefined
    server.answer(READINGS, new Promise((resolve) => (answer = resolve)))
    const bench = await open()
    const taking = bench.take({ text: '4.1' })
    await settled()
    bench.step(1)
    await settled()
    bench.step(-1)
    await settled()
    answer({ reading_id: 'r', typed: '4.1', typed_unit: 'inch', event: 2 })
    await taking
    await settled()
    expect(bench.here.value?.name).toBe('10000 at 0')
  })

  it('takes small units where the gauge shows how far off a size it stands', async () => {
    server.answer(SURVEY, survey([], { zeroed_on: 'setting master' }))
    server.answer(READINGS, {
      status: 201,
      body: { reading_id: 'r', typed: '1', typed_unit: 'thou', event: 2 },
    })
    const bench = await open()
    expect(bench.deviates.value).toBe(true)
    await bench.take({ text: '1' })
    expect(server.asked.find((one) => one.path === READINGS)?.body).toMatchObject({ bare_unit: 'thou' })
  })

  it('steps and moves by keys, and forgets what was refused on the way', async () => {
    server.answer(SURVEY, survey())
    server.answer(READINGS, { status: 422, body: refusalBody('wrong', 'That is no length.') })
    const bench = await open()
    await bench.take({ text: 'x' })
    expect(bench.refusal.value?.message).toBe('That is no length.')
    bench.step(1)
    await settled()
    expect(bench.here.value?.name).toBe('10000 at 90')
    expect(bench.refusal.value).toBeNull()
    bench.move('down')
    await settled()
    expect(bench.here.value?.name).toBe('50000 at 90')
    bench.step(-1)
    await settled()
    expect(bench.here.value?.name).toBe('50000 at 0')
  })

  it('shows the part that is at hand, not what comes late for the one before', async () => {
    let late: (body: unknown) => void = () => undefined
    server.answer(/hole-1$/, new Promise((resolve) => (late = resolve)))
    server.answer(/hole-2$/, survey([], null, 'hole-2'))
    const bench = await open()
    await view.router.push('/measure/block bore/hole-2')
    await settled()
    expect(bench.survey.value?.part.key).toBe('hole-2')
    late(survey().body)
    await settled()
    expect(bench.survey.value?.part.key).toBe('hole-2')
  })

  it('says why where it cannot be shown, and that the link is down where nothing answers', async () => {
    server.answer(SURVEY, { status: 422, body: refusalBody('wrong', 'hole-9 is no part of this job.') })
    const bench = await open()
    expect(bench.refusal.value?.message).toBe('hole-9 is no part of this job.')
    server.answer(SURVEY, 'away')
    await bench.load()
    await settled()
    expect(linkUp.value).toBe(false)
  })
})
