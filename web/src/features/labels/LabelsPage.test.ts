import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView } from '@/api/generated'
import { aroundPage } from '@/testing/around'
import { mountPage, type Page } from '@/testing/page'
import type { FakeServer } from '@/testing/server'

import LabelsPage from './LabelsPage.vue'

const label = (of: string, title: string) => ({
  key: `${of}-${title}`,
  of,
  title,
  lines: [title, 'Ferry', 'six'],
  address: `/j/${title}`,
})
const LABELS = {
  labels: [label('hole', 'Hole 1'), label('hole', 'Hole 2'), label('liner', 'L1')],
  places: { '89 x 36 mm': 1, '70 x 36 mm': 24 },
}
const block = { event: 3, job: { name: 'Ferry' } } as unknown as BlockView

describe('labels of a job', () => {
  let server: FakeServer
  let page: Page
  beforeEach(() => {
    server = aroundPage()
    server.answer('/api/jobs/j/labels', { body: LABELS })
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  const open = async (query = '') => {
    page = await mountPage(LabelsPage, {}, block, `/jobs/j/labels${query}`)
    return page.view
  }
  const pdf = () => new URL(page.view.get('a.act').attributes('href') ?? '', 'http://here')

  it('begins with the holes, or with what one comes from', async () => {
    await open()
    expect(pdf().searchParams.getAll('key')).toEqual(['hole-Hole 1', 'hole-Hole 2'])
    expect(page.view.get('a.act').text()).toBe('PDF of 2 labels')
    page.view.unmount()
    await open('?of=liner')
    expect(pdf().searchParams.getAll('key')).toEqual(['liner-L1'])
    expect(page.view.get('a.act').text()).toBe('PDF of 1 label')
  })

  it('takes all of a kind or none, and says which kinds there are none of', async () => {
    const view = await open()
    await view.get('button[aria-label="Liners: all"]').trigger('click')
    expect(pdf().searchParams.getAll('key')).toContain('liner-L1')
    await view.get('button[aria-label="Holes: none"]').trigger('click')
    expect(pdf().searchParams.getAll('key')).toEqual(['liner-L1'])
    expect(view.get('section[aria-label=Pistons]').text()).toContain('none in this job yet')
    await view.get('button[aria-label="Liners: none"]').trigger('click')
    expect(view.find('a.act').exists()).toBe(false)
    expect(view.text()).toContain('Choose what is to be labelled.')
  })

  it('shows the first as it will be, and leads where its code leads', async () => {
    const view = await open()
    expect(view.get('img').attributes('alt')).toBe('Label: Hole 1, Hole 1, Ferry, six')
    expect(view.get('img').attributes('src')).toContain('key=hole-Hole+1')
    expect(view.text()).toContain('/j/Hole 1')
  })

  it('asks how many of a sheet are used where it has several, and takes no other word for a number', async () => {
    const view = await open()
    expect(view.text()).not.toContain('Labels used of the first sheet')
    await view.get('select').setValue('70 x 36 mm')
    expect(view.text()).toContain('of 24, counted row by row')
    await view.get('input:not([type=checkbox])').setValue('5')
    expect([pdf().searchParams.get('size'), pdf().searchParams.get('used')]).toEqual(['70 x 36 mm', '5'])
    await view.get('input:not([type=checkbox])').setValue('a few')
    expect(pdf().searchParams.get('used')).toBe('0')
  })
})
