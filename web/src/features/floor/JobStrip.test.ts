import { afterEach, describe, expect, it } from 'vitest'

import type { FloorStrip, LegView } from '@/api/generated'
import { type Page, mountPage } from '@/testing/page'

import JobStrip from './JobStrip.vue'

const leg = (more: Partial<LegView>): LegView => ({
  operation: 'cut',
  short: 'Cut',
  title: 'Cut counterbores',
  hours: 1,
  state: 'not measured',
  is_done: false,
  is_next: false,
  words: '1 h',
  open_holes: [],
  ...more,
})
const strip = (more: Partial<FloorStrip> = {}): FloorStrip => ({
  job: {
    job_id: 'j',
    number: '26-1',
    name: 'Ferry',
    customer: 'Trust',
    complaint: '',
    serial: '',
    opened_at: '',
    invented: true,
  },
  engine: 'Six',
  heads: [[1, 2]],
  holes: [1, 2].map((number) => ({ number, state: 'in', least_m: 0, greatest_m: 1e-4, marks: [] })),
  needs: [],
  route: [],
  points: [],
  promised: null,
  released: false,
  away: false,
  ...more,
})

describe('a job on the floor', () => {
  let page: Page
  afterEach(() => page.view.unmount())
  const open = async (now: FloorStrip) => {
    page = await mountPage(JobStrip, { strip: now })
    return page.view.text().replace(/\s+/g, ' ')
  }

  it('says what comes next on its route, and what that waits for', async () => {
    const text = await open(
      strip({
        route: [leg({ is_done: true }), leg({ is_next: true, words: 'waits: the cutter' })],
        points: [
          {
            kind: 'waits',
            words: 'Cut counterbores waits for the cutter',
            state: 'not measured',
            hole: null,
          },
        ],
      }),
    )
    expect(text).toContain('Cut counterbores')
    expect(text.match(/the cutter/g)).toHaveLength(1)
    expect(page.view.find('a[href*="/route"]').exists()).toBe(true)
  })

  it('says the day it is promised for once, and that it is late', async () => {
    const late = { kind: 'late', words: 'promised 2 days ago', state: 'out', hole: null } as const
    const text = await open(strip({ promised: '2026-11-28', points: [late] }))
    expect(text).toContain('promised forSat 28 Nov · promised 2 days ago')
    expect(page.view.findAll('li')).toHaveLength(0)
  })

  it('says what is to be read again by shape and word', async () => {
    const text = await open(
      strip({ route: [leg({ state: 'read again', is_next: true, words: 'read again' })] }),
    )
    expect(text).toContain('Cut counterbores: read again')
    expect(page.view.findAll('[aria-label="read again"]')).toHaveLength(1)
  })

  it('says when every operation is done, and every hole in', async () => {
    const text = await open(strip({ route: [leg({ is_done: true })] }))
    expect(text).toContain('every operation done')
    expect(text).toContain('Every hole is in.')
  })

  it('lists what each hole needs, with the operation it belongs to', async () => {
    const sentence = { text: 'Read 6h', terms: [] }
    const text = await open(
      strip({ needs: [{ operation: 'Seat proved', holes: [{ hole: 2, state: 'out', sentence }] }] }),
    )
    expect(text).toContain('hole 2')
    expect(text).toContain('Seat proved')
  })
})
