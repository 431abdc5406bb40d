import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'

import type { BoreView, PlaceReadView } from '@/api/generated'
import WallTracks from '@/shared/charts/WallTracks.vue'
import { unit } from '@/shared/state/preferences'

import BoreAtLevel from './BoreAtLevel.vue'

const place = (
  level_um: string,
  axis_deg: number,
  value_m: number | null,
  more: Partial<PlaceReadView> = {},
) =>
  ({
    place: { level_um, axis_deg, hour: null, along_um: null, across_um: null },
    name: `${level_um}, ${axis_deg}°`,
    value_m,
    past_m: null,
    expanded_m: value_m === null ? null : 2e-6,
    readings: [],
    unreadable: '',
    doubtful: false,
    on_pattern: true,
    state: value_m === null ? null : 'in',
    ...more,
  }) as unknown as PlaceReadView
const LEVEL = { name: 'top', depth_um: '20000', depth_m: 0.02 }

function bore(places: PlaceReadView[], more: object = {}): BoreView {
  return {
    hole: 2,
    survey: {
      quantity: 'block bore',
      is_size: true,
      is_diameter: true,
      nominal_m: 0.1,
      least_m: 0.09998,
      greatest_m: 0.10004,
      places,
      part: { title: 'hole 2', state: 'in', can_read: true, reason: '' },
      pattern: { levels: [{ name: 'top', depth_m: 0.02 }], axes_deg: [0, 90] },
      form: null,
      rules: [],
      told: [],
      ...more,
    },
  } as unknown as BoreView
}

describe('a bore at one level', () => {
  beforeEach(() => (unit.value = 'µm'))
  const open = (view: BoreView) =>
    mount(BoreAtLevel, { props: { bore: view, level: LEVEL, axis: 0, wide: false } })
  const rows = (view: BoreView) =>
    open(view)
      .findAll('li')
      .map((one) => one.text().replace(/\s+/g, ' '))

  it('has its axes in order, each as far as it is from the nominal, with its ±', () => {
    expect(
      rows(bore([place('20000', 90, 0.10001), place('20000', 0, 0.09999), place('80000', 0, 0.1)])),
    ).toEqual(['0°−10±2', '90°+10±2'])
  })

  it('says what is not read, what cannot be, and what was before it was disturbed', () => {
    const places = [
      place('20000', 0, null),
      place('20000', 45, null, { unreadable: 'a port' }),
      place('20000', 90, null, { past_m: 0.10002 }),
    ]
    expect(rows(bore(places))).toEqual(['0°not read', '45°a port', '90°was +20'])
  })

  it('chooses an axis, and shows which one is chosen', async () => {
    const view = open(bore([place('20000', 0, 0.1), place('20000', 90, 0.1)]))
    expect(view.findAll('button').map((one) => one.attributes('aria-pressed'))).toEqual(['true', 'false'])
    await view.findAll('button')[1]?.trigger('click')
    expect(view.emitted('choose')).toEqual([[90]])
  })

  it('tells out of round on the diameter and per side', () => {
    const form = { levels: [{ depth_m: 0.02, out_of_round_m: 20e-6, mean_m: 0.1 }] }
    const text = open(bore([place('20000', 0, 0.1)], { form }))
      .text()
      .replace(/\s+/g, ' ')
    expect(text).toContain('out of round 20 on the diameter, 10 per side')
  })

  it('says why nothing can be read', () => {
    const part = { title: 'hole 2', state: 'not measured', can_read: false, reason: 'no liner is fitted' }
    expect(open(bore([], { part })).text()).toContain('no liner is fitted')
  })
})

describe('the wall drawn level by level', () => {
  const drawn = (places: PlaceReadView[]) =>
    mount(WallTracks, { props: { survey: bore(places).survey, at: null, tip: null, plain: true } })

  it('has a mark for what was read, and a hollow one where it stood before', () => {
    const view = drawn([
      place('20000', 0, 0.10001),
      place('20000', 90, null, { past_m: 0.10002 }),
      place('20000', 45, null),
    ])
    const marks = view.findAll('circle')
    expect(marks).toHaveLength(2)
    expect(marks.map((mark) => mark.attributes('r'))).toEqual(['3.5', '4'])
  })

  it('says how many places of a level cannot be read', () => {
    expect(drawn([place('20000', 0, null, { unreadable: 'a port' })]).text()).toContain('1 cannot be read')
  })

  it('goes to a level by keyboard', async () => {
    const view = drawn([place('20000', 0, 0.1)])
    await view.find('[role="button"]').trigger('keydown.enter')
    expect(view.emitted('choose')).toHaveLength(1)
  })
})
