import { afterEach, describe, expect, it } from 'vitest'

import type { BlockView, LegView, Operation, State } from '@/api/generated'
import { type Page, mountPage } from '@/testing/page'

import RouteRule from './RouteRule.vue'

function leg(operation: Operation, state: State, more: Partial<LegView> = {}): LegView {
  return {
    operation,
    short: operation,
    title: `Title of ${operation}`,
    hours: 1,
    state,
    is_done: state === 'in',
    is_next: false,
    words: state === 'in' ? 'done' : '1 h',
    open_holes: [],
    ...more,
  }
}

describe('the rule over every view of a job', () => {
  let page: Page
  afterEach(() => page.view.unmount())
  const open = async (...route: LegView[]) => {
    page = await mountPage(RouteRule, { block: { job: { job_id: 'j' }, route } as unknown as BlockView })
    return page.view.findAll('li').map((one) => one.text().replace(/\s+/g, ' '))
  }

  it('is short of what is done, and has the rest in order', async () => {
    const items = await open(
      leg('take-in', 'in'),
      leg('strip', 'in', { hours: 1.5 }),
      leg('cut', 'not measured', { is_next: true }),
      leg('fit', 'in'),
      leg('seat', 'out', { words: 'out' }),
    )
    expect(items).toEqual(['2 steps done 2.5 h planned', 'cut1 h', 'fitdone', 'seatout'])
    expect(page.view.find('[aria-current="step"]').text()).toContain('cut')
  })

  it('leads to each operation on the route', async () => {
    await open(leg('cut', 'not measured'))
    expect(page.view.find('a').attributes('href')).toContain('at=cut')
  })

  it('says by its shape what is to be read again', async () => {
    await open(leg('seat', 'read again', { words: 'read again' }))
    expect(page.view.find('[role="img"]').attributes('aria-label')).toBe('read again')
  })

  it('has one step where everything is done', async () => {
    expect(await open(leg('take-in', 'in'))).toEqual(['1 step done 1 h planned'])
  })
})
