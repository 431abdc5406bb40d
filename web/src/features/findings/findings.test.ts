import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import type { BlockView, FindingView, StripRecordView } from '@/api/generated'
import { people } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'
import { type Page, mountPage } from '@/testing/page'
import { type FakeServer, fakeServer, refusalBody, settled } from '@/testing/server'

import StripRecordPage from './StripRecordPage.vue'

const RECORD = '/api/jobs/j/strip-record'
const block = {
  job: { complaint: 'Loses coolant.' },
  holes: [{ number: 1 }, { number: 2 }],
  notes: [],
} as unknown as BlockView

function finding(more: Partial<FindingView>): FindingView {
  return {
    finding_id: String(Math.random()),
    kind: 'condition',
    hole: 1,
    part: 'liner',
    word: 'sound',
    words: '',
    percent: null,
    length_m: null,
    typed: '',
    sound: true,
    hour: null,
    until_hour: null,
    distance_m: null,
    from_m: null,
    until_m: null,
    catches: false,
    in_round: '',
    width_m: null,
    explains: '',
    notes: 0,
    photo: null,
    found_at: '2026-11-20T10:00:00Z',
    found_by: 'Wren',
    event: 1,
    ...more,
  }
}
const forms: StripRecordView['forms'] = [
  {
    kind: 'condition',
    parts: ['liner', 'bore'],
    words: ['sound', 'pitted'],
    figure: '',
    unit: '',
    of_hole: true,
    lies: false,
  },
  {
    kind: 'leak-down',
    parts: ['cylinder'],
    words: ['past the rings'],
    figure: 'leak-down',
    unit: '%',
    of_hole: true,
    lies: false,
  },
]
const record = (more: Partial<StripRecordView> = {}): StripRecordView => ({
  findings: [],
  forms,
  suspects: [],
  waivers: [],
  unread: [],
  ...more,
})

describe('the strip record', () => {
  let server: FakeServer
  let page: Page

  beforeEach(() => {
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
    people.value = [{ person_id: 'wren', name: 'Wren' }]
    personId.value = 'wren'
  })
  afterEach(() => {
    page.view.unmount()
    vi.unstubAllGlobals()
  })
  async function open(now: StripRecordView): Promise<void> {
    server.answer(RECORD, { body: now })
    page = await mountPage(StripRecordPage, {}, block)
  }
  const form = () => page.view.find('form[aria-label="Found"]')
  const row = (hole: string) => {
    const found = page.view.findAll('tbody tr').find((one) => one.find('th').text() === hole)
    return found?.text().replace(/\s+/g, ' ') ?? ''
  }
  const sent = () => server.asked.filter((one) => one.method === 'POST')
  const word = (text: string) => {
    const found = form()
      .findAll('button')
      .find((one) => one.text() === text)
    if (!found) throw new Error(`no word ${text}`)
    return found
  }

  it('stands hole by hole, what is not sound in bold, and the block below', async () => {
    await open(
      record({
        findings: [
          finding({}),
          finding({ hole: 2, word: 'pitted', sound: false, words: 'below the collar' }),
          finding({
            kind: 'leak-down',
            hole: 2,
            part: 'cylinder',
            word: 'past the rings',
            percent: 38,
            typed: '38 %',
          }),
          finding({ kind: 'prior work', hole: null, part: 'block', word: 'welded', sound: false }),
        ],
      }),
    )
    expect(row('1')).toContain('linersound')
    expect(row('2')).toContain('pitted')
    expect(row('2')).toContain('below the collar')
    expect(row('2')).toContain('38 %')
    expect(row('block')).toContain('prior work: block')
    expect(page.view.findAll('td b').map((one) => one.text())).toEqual(['pitted', 'welded'])
  })

  it('writes one thing down and goes on to the next hole in the same way', async () => {
    await open(record())
    server.answer(`${RECORD}/findings`, { status: 201, body: { job_id: 'j' } })
    await word('pitted').trigger('click')
    expect(word('pitted').attributes('aria-pressed')).toBe('true')
    await form().trigger('submit')
    await settled()
    expect(sent()[0]?.body).toMatchObject({ kind: 'condition', hole: 1, part: 'liner', word: 'pitted' })
    const [, where] = form().findAll('select')
    expect((where?.element as HTMLSelectElement).value).toBe('2')
    expect(word('pitted').attributes('aria-pressed')).toBe('false')
  })

  it('keeps what was typed when a figure is refused, and sends the same thing once more', async () => {
    await open(record())
    const [kind] = form().findAll('select')
    await kind?.setValue('leak-down')
    const figure = form().findAll('input')[1]
    await figure?.setValue('130')
    server.answer(
      `${RECORD}/findings`,
      { status: 422, body: refusalBody('wrong', 'A leak-down lies between 0 and 100 %.') },
      { status: 201, body: { job_id: 'j' } },
    )
    await form().trigger('submit')
    await settled()
    expect(form().find('[role="alert"]').text()).toContain('between 0 and 100')
    expect((figure?.element as HTMLInputElement).value).toBe('130')
    await figure?.setValue('30')
    await form().trigger('submit')
    await settled()
    const ids = sent().map((one) => (one.body as { finding_id: string }).finding_id)
    expect(ids[0]).toBe(ids[1])
    expect(sent()[1]?.body).toMatchObject({ figure: '30', part: 'cylinder' })
  })

  it('says from each symptom what to measure, and whether it was begun', async () => {
    await open(
      record({
        suspects: [
          {
            symptom: 'smoke',
            told: 'complaint',
            holes: [2],
            suspects: [
              { what: 'a worn bore', shows: 'a ridge', quantities: ['block bore'], begun: 0, of: 2 },
              { what: 'rings', shows: 'no spring', quantities: ['ring gap'], begun: 1, of: 2 },
            ],
          },
        ],
      }),
    )
    const suspects = page.view.find('[aria-label="Suspects"]').text().replace(/\s+/g, ' ')
    expect(suspects).toContain('smoke, complaint at hole 2')
    expect(suspects).toContain('block bore, nothing read yet')
    expect(suspects).toContain('ring gap, 1 of 2 begun')
  })

  it('waives by name and reason what is not read', async () => {
    await open(record({ unread: [{ quantity: 'deck flatness', part: 'deck', title: 'deck' }] }))
    const list = page.view.find('[aria-label="Not read"]')
    await list.find('button').trigger('click')
    await list.find('input').setValue('it is decked anyway')
    server.answer(`${RECORD}/waivers`, { status: 201, body: { job_id: 'j' } })
    await list.find('form').trigger('submit')
    await settled()
    expect(sent()[0]?.body).toMatchObject({
      quantity: 'deck flatness',
      part: 'deck',
      waived: true,
      reason: 'it is decked anyway',
      person_id: 'wren',
    })
  })

  it('shows who waived what, and says so where nothing is left', async () => {
    const waiver = {
      quantity: 'main bore' as const,
      part: 'main-1',
      title: 'main bore 1',
      reason: 'the crank stays in',
      waived_by: 'Ines',
      waived_at: '2026-11-20T10:00:00Z',
    }
    await open(record({ waivers: [waiver] }))
    const list = page.view.find('[aria-label="Not read"]').text()
    expect(list).toContain('Everything is read, or not read by name.')
    expect(list).toContain('Ines: the crank stays in')
  })

  it('keeps a photo with what was found', async () => {
    await open(record({ findings: [finding({ finding_id: 'f1', word: 'pitted', sound: false })] }))
    const notes = page.view.find('[aria-label="Notes and photos of liner pitted"]')
    expect(notes.text()).toBe('photo')
    await notes.trigger('click')
    await settled()
    const dialog = document.querySelector('[role="dialog"]')
    expect(dialog?.textContent).toContain('Notes on liner pitted')
    const field = dialog?.querySelector('textarea') as HTMLTextAreaElement
    field.value = 'below the collar'
    field.dispatchEvent(new Event('input'))
    server.answer('/api/findings/f1/notes', { status: 201, body: { note_id: 'n' } })
    await settled()
    dialog?.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }))
    await settled()
    expect(sent().map((one) => one.path)).toEqual(['/api/findings/f1/notes'])
  })

  it('shows the photo that is there', async () => {
    await open(record({ findings: [finding({ photo: 'n1', notes: 1 })] }))
    expect(page.view.find('img').attributes('src')).toBe('/api/notes/n1/photo')
  })

  it('says why it cannot be shown', async () => {
    server.answer(RECORD, { status: 503, body: refusalBody('unavailable', 'The database is away.') })
    page = await mountPage(StripRecordPage, {}, block)
    expect(page.view.text()).toContain('The database is away.')
  })
})
