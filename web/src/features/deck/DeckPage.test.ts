import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, DeckFaceView, DeckOptionView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import { type FakeServer, refusalBody, settled } from '@/testing/server'

import DeckPage from './DeckPage.vue'
import { endsOf, facePicture, stripsOf } from './picture'

const stated = (value_m: number, expanded_m = 5e-6) => ({ value_m, expanded_m })
const FACE = {
  part: 'deck',
  title: 'deck',
  numbers: [1],
  relief: {
    along_m: 0,
    across_m: -0.06,
    step_m: 0.04,
    below_m: [
      [40e-6, 40e-6, 30e-6],
      [40e-6, 20e-6, 0],
      [0, 0, 0],
      [0, 0, 0],
      [0, 0, 0],
    ],
  },
  bores: [{ number: 1, along_m: 0.1, across_m: 0, radius_m: 0.05 }],
  land_m: 0.007,
  whole_m: 40e-6,
  land_cut_m: 40e-6,
  within_m: 5e-6,
  may_tilt: false,
  fall_along: 0,
  fall_across: 0,
  flat: 'in',
  height: null,
}
const hole = (off_m: number, low: number, state: string) => ({
  hole: 1,
  off_m,
  lowest: { stated: stated(low), state },
  highest: { stated: stated(low + 5e-6), state },
  state,
})
const option = (aim: string, depth: number, more: object = {}) => ({
  aim,
  faces: [{ part: 'deck', depth_m: depth, height: null, height_state: null, is_clean: depth > 0 }],
  holes: [hole(depth - 30e-6, 60e-6 + depth, 'in')],
  heights: [
    {
      name: 'piston to valve',
      now_m: 1.35e-3,
      after_m: 1.35e-3 - depth,
      least_m: 1.2e-3,
      greatest_m: null,
      keeps: depth < 150e-6,
    },
  ],
  compression_before: 16,
  compression_after: 16 + depth * 1e3,
  state: 'in',
  deepest_m: depth,
  says: [],
  why_not: '',
  ...more,
})
const PLAN = {
  faces: [FACE],
  options: [
    option('leave it', 0, { state: 'out', says: [{ text: 'Hole 1 stands low then.', terms: [] }] }),
    option('clean the whole face', 40e-6),
    option('make both halves alike', 0, { faces: [], holes: [], heights: [], why_not: 'height not read' }),
  ],
  least: 'clean the whole face',
  swept: { cm3: 1800.4, cubic_inches: 109.87 },
  wanted: null as object | null,
  least_wall_m: 0.005,
  kept: ['the valve face: scraped in'],
  is_kept: false,
  caution: ['Spinning cutter.'],
}
const block = { job: { name: 'Six' }, holes: [], liners: [] } as unknown as BlockView

describe('the deck plan', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage('µm')
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const plan = '/api/jobs/j/deck'
  const open = async (...bodies: Parameters<FakeServer['answer']>[1][]) => {
    server.answer(plan, ...bodies)
    page = await mountPage(DeckPage, {}, block, '/jobs/j/deck')
    return page.view
  }

  it('shows the aim that takes least of those that come out in, and what it does', async () => {
    const view = await open({ body: PLAN })
    expect(view.find('[aria-label="What it does"]').text()).toContain('It comes out in')
    expect(view.find('tr.bg-act-wash').text()).toContain('clean the whole face')
    expect(view.find('tr.bg-act-wash').text()).toContain('+100 to +105')
    expect(view.text()).toContain('height not read')
    expect(view.text()).toContain('Not to be cut: the valve face')
    expect(view.text()).toContain('Mark it on the route')
    expect(view.text()).toContain('1800 cm³')
    expect(view.text()).toContain('109.9 cu in')
  })

  it('sends nobody to mark a cut of a deck that the card keeps', async () => {
    const kept = ['the deck: rings of wire let in']
    const view = await open({ body: { ...PLAN, kept, is_kept: true } })
    expect(view.text()).toContain('No cut is recommended')
    expect(view.text()).not.toContain('Mark it on the route')
  })

  it('shows another aim when it is chosen, with what goes out', async () => {
    const view = await open({ body: PLAN })
    await view.find('tbody button').trigger('click')
    expect(view.find('[aria-label="What it does"]').text()).toContain('Something goes out')
    expect(view.text()).toContain('Hole 1 stands low then.')
  })

  it('keeps what is typed where it is refused, then shows what it would do', async () => {
    const problem = { field: 'skim', message: 'A length is a number.' }
    const tried = option('take what is typed', 100e-6)
    const wanted = { bore_m: 0.09, growth_m: 1e-3, wall_m: 0.004, per_cent: 5 }
    const view = await open(
      { body: PLAN },
      { status: 422, body: { ...refusalBody('invalid', problem.message), problems: [problem] } },
      { body: { ...PLAN, options: [...PLAN.options, tried], wanted } },
    )
    await view.find('form input').setValue('a few')
    await view.find('form').trigger('submit')
    await settled()
    expect(view.text()).toContain('A length is a number.')
    expect(view.find<HTMLInputElement>('form input').element.value).toBe('a few')
    await view.find('form input').setValue('100')
    await view.find('form').trigger('submit')
    await settled()
    expect(server.asked.filter((one) => one.path === plan)).toHaveLength(3)
    expect(view.find('tr.bg-act-wash').text()).toContain('take what is typed')
    expect(view.find('[role=status]').text()).toContain('wall left')
    expect(view.find('[role=status] .text-out').exists()).toBe(true)
  })
})

describe('the picture of a face', () => {
  const face = FACE as unknown as DeckFaceView
  it('takes the depth off the highest point, less below it, nothing where it does not reach', () => {
    const offs = facePicture(face, 30e-6)?.cells.map((cell) => Math.round(cell.off * 1e6) + 0)
    expect(offs?.slice(0, 6)).toEqual([-10, -10, 0, -10, 10, 30])
  })

  it('keeps bores round and all in the picture', () => {
    const picture = facePicture(face, 40e-6)
    if (!picture) throw new Error('no picture')
    const radius = 0.057 * picture.scale
    expect(picture.x(0.1) + radius).toBeLessThan(picture.width)
    expect(picture.y(0) - radius).toBeGreaterThan(0)
    expect(picture.cells.every((cell) => cell.x >= 0 && cell.x + cell.size <= picture.width)).toBe(true)
    expect(facePicture({ ...face, relief: null }, 0)).toBeNull()
  })

  it('tells the lowest and the highest end of all liners', () => {
    expect(endsOf(option('x', 0) as unknown as DeckOptionView)).toMatchObject({
      low: 60e-6,
      high: expect.closeTo(65e-6, 9) as number,
    })
    expect(endsOf({ ...option('x', 0), holes: [] } as unknown as DeckOptionView)).toBeNull()
  })
})

describe('strips of a face', () => {
  it('hold every bore once, from the front, and lie edge to edge', () => {
    const bores = [3, 1, 4, 2].map((number) => ({
      number,
      along_m: number * 0.05,
      across_m: 0,
      radius_m: 0.02,
    }))
    const picture = facePicture(FACE as unknown as DeckFaceView, 20e-6)!
    const strips = stripsOf(bores, picture, 3)
    expect(strips.map((strip) => strip.numbers)).toEqual([
      [1, 2],
      [3, 4],
    ])
    expect(strips[0]?.from).toBe(0)
    expect(strips[1]?.from).toBeCloseTo((strips[0]?.from ?? 0) + (strips[0]?.width ?? 0))
    expect((strips[1]?.from ?? 0) + (strips[1]?.width ?? 0)).toBeCloseTo(picture.width)
    expect(stripsOf(bores, picture, Infinity)).toMatchObject([{ from: 0, width: picture.width, times: 1 }])
  })
})
