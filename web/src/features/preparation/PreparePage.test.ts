import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, DeckMarkView, FindingView, PreparationView } from '@/api/generated'
import { people } from '@/shared/state/people'
import { personId, unit } from '@/shared/state/preferences'
import { type Page, mountPage } from '@/testing/page'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import PreparePage from './PreparePage.vue'

const HERE = '/api/jobs/j/preparation'
const block = {
  card: {
    arrangement: 'in-line',
    banks: [[1, 2]],
    bank_offset_m: 0,
    bore_m: 0.128,
    bore_pitch_m: 0.168,
  },
  holes: [{ number: 1 }, { number: 2 }],
} as unknown as BlockView
const finding = (more: Partial<FindingView> = {}): FindingView =>
  ({
    finding_id: 'f',
    kind: 'mark on deck or ledge',
    hole: 2,
    part: 'deck',
    word: 'pit',
    words: '',
    hour: 4,
    until_hour: null,
    distance_m: 3e-3,
    width_m: 2e-3,
    length_m: 60e-6,
    typed: '0.06 mm',
    explains: '',
    notes: 0,
    ...more,
  }) as FindingView
const mark: DeckMarkView = {
  finding: finding(),
  verdict: 'skim or repair',
  words: 'inside the sealing land',
  skim_m: 60e-6,
}
const ready = (more: Partial<PreparationView> = {}): PreparationView => ({
  steps: [],
  tools: ['scraper and solvent', 'flat stone'],
  scraped: 0,
  bolt_holes: null,
  dowels: null,
  uncleaned: ['the deck is not scraped', 'bolt holes are not chased', 'nothing said of the dowels'],
  plugs: [{ place: 'bores', went_in: 6, came_out: 4 }],
  unplugged: ['oil holes'],
  plugs_missing: 'bores: 6 plugs went in, 4 came out',
  inspections: [],
  marks: [mark],
  wear: [],
  land_m: 7e-3,
  edge_radius_m: 0.072,
  flatness: [{ part: 'deck', title: 'deck', asked: true, state: 'in', reason: '' }],
  skim_m: 60e-6,
  dependents: [
    {
      name: 'piston to valve',
      now_m: 1.35e-3,
      by_skim_m: -60e-6,
      by_shim_m: 0,
      after_m: 1.29e-3,
      least_m: 1.3e-3,
      greatest_m: null,
      keeps: false,
    },
  ],
  compression_before: 16.03,
  compression_after: 16.12,
  readings: [],
  cautions: ['Swarf cuts.'],
  ...more,
})

describe('the block made ready', () => {
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
  async function open(now = ready()): Promise<void> {
    server.answer(HERE, { body: now })
    page = await mountPage(PreparePage, {}, block)
  }
  const text = () => page.view.text().replace(/\s+/g, ' ')
  const button = (name: RegExp, within = page.view.element as Element) => {
    const found = [...within.querySelectorAll('button')].find((one) =>
      name.test(`${one.textContent ?? ''} ${one.getAttribute('aria-label') ?? ''}`),
    )
    if (!found) throw new Error(`no button ${String(name)}`)
    return found
  }
  const sent = (path: string) =>
    server.asked.filter((one) => one.method === 'POST' && one.path.endsWith(path))
  const click = async (one: Element) => {
    one.dispatchEvent(new MouseEvent('click', { bubbles: true }))
    await settled()
  }

  it('says what a mark asks for and what a skim would do', async () => {
    await open()
    expect(text()).toContain('skim or repair: inside the sealing land: skim 60 µm, or repair')
    expect(text()).toContain('A skim of 60 µm would change')
    expect(text()).toContain('1.29 outside')
    expect(text()).toContain('16.03 → 16.12 : 1')
    expect(text()).toContain('wash and release are held')
  })

  it('counts plugs by place, and says why a power tool is refused', async () => {
    await open()
    server.answer(`${HERE}/steps`, { status: 201, body: { job_id: 'j' } })
    await page.view.find('input[aria-label="How many, bores"]').setValue('2')
    await click(button(/Plugs out, bores/))
    expect(sent('/steps')[0]?.body).toMatchObject({ kind: 'plugs out', place: 'bores', count: 2 })
    server.answer(`${HERE}/steps`, { status: 422, body: refusalBody('wrong', 'No power tool on a deck.') })
    const clean = page.view.find('[aria-label="Clean"]')
    await clean.find('select').setValue('power grinder or disc')
    await clean.find('form').trigger('submit')
    await settled()
    expect(sent('/steps')[1]?.body).toMatchObject({
      kind: 'deck scraped',
      place: 'power grinder or disc',
      count: 1,
    })
    expect(clean.text()).toContain('No power tool on a deck.')
  })

  it('writes a look down for a hole, or waives it by name', async () => {
    await open()
    const looks = page.view.find('[aria-label="Looked at before it is cut"]')
    expect(looks.text()).toContain('not looked at, not waived')
    await looks.findAll('button').at(-1)?.trigger('click')
    await looks.findAll('input').at(0)?.setValue('0.4')
    server.answer(`${HERE}/inspections`, { status: 201, body: { job_id: 'j' } })
    await click(button(/Sound/, looks.element))
    expect(sent('/inspections')[0]?.body).toMatchObject({
      kind: 'corner of the ledge',
      outcome: 'sound',
      radius: '0.4',
      hole: null,
    })
  })

  it('keeps a mark half typed over a reload, and sends it with clock and distance', async () => {
    await open()
    const form = () => page.view.find('form[aria-label="Mark or wear"]')
    const field = (label: RegExp) => {
      const found = form()
        .findAll('label')
        .find((one) => label.test(one.text()))
      return form().find(`[id="${found?.attributes('for') ?? ''}"]`)
    }
    await field(/Clock/).setValue('4h')
    await field(/From the edge/).setValue('3')
    page.view.unmount()
    await open()
    expect((field(/Clock/).element as HTMLInputElement).value).toBe('4h')
    await field(/How deep/).setValue('0.06')
    server.answer('/api/jobs/j/strip-record/findings', { status: 201, body: { job_id: 'j' } })
    await form().trigger('submit')
    await settled()
    expect(sent('/findings')[0]?.body).toMatchObject({
      kind: 'mark on deck or ledge',
      hour: 4,
      distance: '3',
      figure: '0.06',
      bare_unit: 'mm',
    })
    expect((field(/Clock/).element as HTMLInputElement).value).toBe('')
  })

  it('shows a reading that wear explains', async () => {
    const wear = finding({
      kind: 'wear of the seat',
      word: 'worn ring',
      explains: 'counterbore depth 6h 8.872 mm',
    })
    await open(ready({ marks: [], wear: [wear] }))
    expect(text()).toContain('explains counterbore depth 6h 8.872 mm')
  })
})
