import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, MainView, OffLineView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer } from '@/testing/server'

import MainsPage from './MainsPage.vue'
import { BAND, endsOf, LINE, linePoints, lineScale, marksOf, MIDDLE, radiusOf } from './picture'

const stated = (value_m: number, expanded_m = 2e-6) => ({ value_m, expanded_m })
const direction = (axis_deg: number, now: number, before: number | null = null) => ({
  axis_deg,
  now: stated(now),
  before: before === null ? null : stated(before),
  change: before === null ? null : stated(now - before),
  has_moved: before !== null && Math.abs(now - before) > 2e-6,
})
const MAIN = {
  part: 'main-2',
  title: 'main bore 2',
  lies: 'small',
  reason: '',
  directions: [direction(45, 0.066663, 0.066688), direction(90, 0.066676)],
  least_m: 0.066675,
  greatest_m: 0.0667,
  out_of_round: null,
  between: ['fit the liner, hole 2'],
  says: { text: 'below the low limit', terms: [] },
}
const off = (part: string, value: number, was: number | null = null) => ({
  part,
  upright: stated(value),
  across: stated(0),
  off: stated(Math.abs(value)),
  hour: value === 0 ? null : 12,
  state: value > 10e-6 ? 'out' : 'in',
  moved: was === null ? null : stated(value - was),
  upright_was: was === null ? null : stated(was),
  across_was: null,
})
const ROWS = [off('main-1', 0), off('main-2', 20e-6, 2e-6), off('main-3', 0)] as unknown as OffLineView[]
const VIEW = {
  mains: [MAIN],
  line: {
    rows: ROWS,
    within_m: 12.7e-6,
    missing: [],
    state: 'out',
    says: { text: 'Main bore 2', terms: [] },
  },
  decision: {
    what: 'align-hone',
    reasons: [{ text: 'Main bore 2 is too small.', terms: [] }],
    open_points: [],
    take_m: 2e-5,
    brings: { text: 'nearer to the deck', terms: [] },
  },
  caution: ['swarf'],
}
const block = { job: { name: 'Twin' }, holes: [], liners: [] } as unknown as BlockView

describe('the main bores', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (view: object) => {
    server.answer('/api/jobs/j/mains', { body: view })
    page = await mountPage(MainsPage, {}, block, '/jobs/j/mains')
    return page.view
  }

  it('says what they need and why, and what moved since before', async () => {
    const view = await open(VIEW)
    expect(view.find('[aria-label="What the mains need"]').text()).toContain('Align-hone them')
    expect(view.text()).toContain('Main bore 2 is too small.')
    expect(view.text()).toContain('hollow: before fit the liner, hole 2')
    expect(view.find('[aria-label="main bore 2"]').text()).toContain('−1.0 ±0.1')
    expect(view.text()).toContain('it went 0.7 ±0.1')
  })

  it('leads to the card where it has no mains', async () => {
    const view = await open({ ...VIEW, mains: [], line: { ...VIEW.line, rows: [] } })
    expect(view.text()).toContain('has no main bores')
  })

  it('says that all is well', async () => {
    const decision = { what: 'leave them', reasons: [], open_points: [], take_m: null, brings: null }
    expect((await open({ ...VIEW, decision })).text()).toContain('they stand in one line')
  })
})

describe('the pictures of the mains', () => {
  it('lays the limits at the rims of the band, and no mark beyond the picture', () => {
    expect(radiusOf(1, 1, 3)).toBe(BAND.inner)
    expect(radiusOf(3, 1, 3)).toBe(BAND.outer)
    expect(radiusOf(100, 1, 3)).toBeLessThan(MIDDLE)
    const marks = marksOf(MAIN as unknown as MainView)
    expect(marks.map((mark) => mark.state)).toEqual(['small', 'in'])
    expect(marks[0]?.before).toBeGreaterThan(marks[0]?.now ?? 0)
    expect(marksOf({ ...MAIN, least_m: null } as unknown as MainView)).toEqual([])
  })

  it('draws upright straight up, both ends of it', () => {
    const [top, foot] = endsOf(90, 50)
    expect(top?.[0]).toBeCloseTo(MIDDLE)
    expect(top?.[1]).toBeCloseTo(MIDDLE - 50)
    expect(foot?.[1]).toBeCloseTo(MIDDLE + 50)
  })

  it('draws a bore that went up above the line, with where it stood', () => {
    const scale = lineScale(ROWS, 12.7e-6)
    const points = linePoints(ROWS, 'upright', scale)
    expect(points[0]?.y).toBe(LINE.height / 2)
    expect(points[1]?.y).toBeLessThan(points[1]?.was ?? 0)
    expect(points[1]?.to).toBeGreaterThanOrEqual(0)
    expect(points[1]?.x).toBe(LINE.width / 2)
    expect(linePoints(ROWS, 'across', scale)[1]?.was).toBeNull()
  })
})
