import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockPlansView, BlockPlanView, BlockView, CutInPlan, PlanHoleView } from '@/api/generated'
import { people } from '@/shared/state/people'
import { personId, unit } from '@/shared/state/preferences'
import { type Page, mountPage } from '@/testing/page'
import { type FakeServer, fakeServer, settled } from '@/testing/server'

import BlockPlanPage from './BlockPlanPage.vue'

const HERE = '/api/jobs/j/block-plan'
const block = {
  card: { banks: [[1, 2]] },
  holes: [{ number: 1 }, { number: 2 }],
} as unknown as BlockView
const cut: CutInPlan = {
  shim_m: 0.1e-3,
  depth_m: 8.898e-3,
  from_touch_off_m: 50e-6,
  other_datum_m: 76e-6,
  passes: 2,
  part_pass_m: 10e-6,
  protrusion_m: 100e-6,
  by_stop_expanded_m: 23e-6,
  by_gauge_expanded_m: 11e-6,
  chance: 0.91,
  ledge_left_m: 5.917e-3,
  place: 1,
  pit_m: null,
}
const hole = (number: number, more: Partial<PlanHoleView> = {}): PlanHoleView => ({
  hole: number,
  state: 'in',
  now_m: 80e-6,
  now_expanded_m: 6e-6,
  present_depth_m: 8.82e-3,
  ledge_left_m: 6e-3,
  cut: null,
  why_not: '',
  why_open: '',
  ...more,
})
const plan = (
  rule: BlockPlanView['rule'],
  holes: PlanHoleView[],
  more: Partial<BlockPlanView> = {},
): BlockPlanView => ({
  rule,
  holes,
  order: holes.filter((one) => one.cut).map((one) => one.hole),
  all_inside: 0.82,
  greatest_apart_m: 21e-6,
  ledge_spent_m: 50e-6,
  shims: [{ size_m: 0.1e-3, count: 1, to_order: 0 }],
  price: 9.4,
  hours: 0.7,
  passes: 3,
  depth_m: null,
  proven_best: true,
  gap: '',
  ...more,
})
const plans = (more: Partial<BlockPlansView> = {}): BlockPlansView => ({
  plans: [
    plan('only those outside', [hole(1), hole(2, { state: 'cannot tell', why_open: 'too near to tell' })], {
      order: [],
      shims: [],
    }),
    plan('best', [hole(1), hole(2, { state: 'out', cut })]),
    plan('all to one depth', [hole(1, { cut }), hole(2, { cut })], {
      depth_m: 8.9e-3,
      shims: [{ size_m: 0.2e-3, count: 2, to_order: 1 }],
      proven_best: false,
      gap: 'depth: 9, at least 8',
    }),
  ],
  why_not: '',
  wishes: [],
  undecided_too: false,
  chosen: null,
  obstructions: [{ hole: 2, what: 'lifting eye', from_hour: 2, until_hour: 4, remedy: 'take it off first' }],
  shim_sizes_m: [0.1e-3, 0.2e-3],
  least_m: 75e-6,
  greatest_m: 125e-6,
  target_m: 100e-6,
  neighbour_m: 50e-6,
  ledge_least_m: 5.2e-3,
  currency: '€',
  trust: { basis: 'own experience, 5 runs', graduation_m: 20.2e-6, stop_accuracy_m: 19e-6, runs: 5 },
  ...more,
})

describe('the plan of a block', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    localStorage.clear()
    vi.stubGlobal(
      'EventSource',
      class {
        close() {
          return undefined
        }
      },
    )
    server = fakeServer()
    people.value = [{ person_id: 'wren', name: 'Wren' }]
    personId.value = 'wren'
    unit.value = 'µm'
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  async function open(now = plans()): Promise<void> {
    server.answer(HERE, { body: now })
    page = await mountPage(BlockPlanPage, {}, block)
  }
  const text = () => page.view.text().replace(/\s+/g, ' ')
  const plate = () => page.view.find('[aria-label="What this block needs"]')
  const press = async (name: RegExp) => {
    const found = page.view.findAll('button').find((one) => name.test(one.text()))
    if (!found) throw new Error(`no button ${String(name)} in ${text()}`)
    await found.trigger('click')
    await settled()
  }

  it('says what to cut first, by which datum, and how likely it lands inside', async () => {
    await open()
    expect(plate().text()).toContain('Cut hole 2 to 8.898 mm from the deck')
    expect(plate().text()).toContain('0.050 mm from touch-off on the high spot')
    expect(plate().text()).toContain('own experience, 5 runs')
    expect(text()).toContain('91 % in')
    expect(text()).toContain('lifting eye')
    await plate().find('input[value="touch-off"]').setValue()
    expect(plate().text()).toContain('Cut hole 2 to 0.050 mm from touch-off')
  })

  it('has the three rules side by side, with what stays open and what is not proven', async () => {
    await open()
    const table = page.view.find('[aria-label="Three rules side by side"]').text().replace(/\s+/g, ' ')
    for (const words of [
      'nothing is cut',
      'hole 2',
      '2 holes to 8.900 mm',
      'order 1',
      'too near to tell',
      '82 %',
    ])
      expect(table).toContain(words)
    expect(table).toContain('not proven: depth: 9, at least 8')
  })

  it('is chosen by name as it was wished', async () => {
    await open()
    server.answer(`${HERE}/try`, { body: plans() })
    await page.view.find('select').setValue('cut it')
    await settled()
    const tried = server.asked.find((one) => one.path.endsWith('/try'))
    expect(tried?.body).toMatchObject({ holes: [{ hole: 1, lock: 'cut it', shim: '', target: '' }] })
    server.answer(HERE, (asked) =>
      asked.method === 'POST' ? { status: 201, body: { job_id: 'j' } } : { body: plans() },
    )
    await press(/Choose this plan as Wren/)
    const chosen = server.asked.find((one) => one.method === 'POST' && one.path === HERE)
    expect(chosen?.body).toMatchObject({ rule: 'best', datum: 'deck', holes: [{ hole: 1, lock: 'cut it' }] })
  })

  it('goes on with the chosen plan, and says what is different now', async () => {
    const chosen = {
      rule: 'best' as const,
      datum: 'deck',
      version: 2,
      chosen_by: 'Ines',
      chosen_at: '2026-11-20T10:00:00Z',
      order: [2],
      next_hole: 2,
      differences: ['hole 2: left now'],
    }
    await open(plans({ chosen }))
    expect(plate().text()).toContain('Start with hole 2')
    expect(plate().text()).toContain('Worked out anew, hole 2: left now.')
    expect(plate().text()).toContain('Plan 2, “best”')
  })

  it('says why there is none', async () => {
    await open(plans({ plans: [], why_not: 'The card names no shim sizes.' }))
    expect(text()).toContain('No cut can be planned: The card names no shim sizes.')
  })
})
