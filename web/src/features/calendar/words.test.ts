import { describe, expect, it } from 'vitest'

import type { CalendarJobView, CalendarView } from '@/api/generated'

import { spansOf, spanWords, weekOf } from './hours'
import { dayWords, headline, holesWords, hoursByWeek, initials, momentWords } from './words'

const job = (name: string, holds: boolean | null, late = 0) =>
  ({
    name,
    promised: holds === null ? null : '2026-12-07',
    holds,
    late_days: late,
    ready: '2026-12-08T09:00:00Z',
  }) as CalendarJobView
const view = (...jobs: CalendarJobView[]) => ({ jobs }) as CalendarView

describe('the sentence above the calendar', () => {
  it('counts promises that hold and names the one that is worst off', () => {
    expect(headline(view(job('Ferry', true), job('Hauler', false, 3), job('Pump', false, 1)))).toEqual({
      first: '1 of 3 promises hold.',
      rest: 'Hauler: ready Tue 8 Dec, promised Mon 7 Dec.',
    })
    expect(headline(view(job('Ferry', true), job('Boat', null))).first).toBe('The promise holds.')
    expect(headline(view(job('Ferry', null))).first).toBe('Nothing is promised yet.')
  })
})

describe('days and holes in words', () => {
  it('names a day as it is said', () => {
    expect(dayWords('2026-12-03T10:30:00+00:00')).toBe('Thu 3 Dec')
    expect(momentWords('2026-12-03T10:30:00+00:00')).toBe('Thu 3 Dec 10:30')
    expect(dayWords(null)).toBe('')
  })

  it('names holes in few words', () => {
    expect(holesWords([5, 6])).toBe(' 5, 6')
    expect(holesWords([2, 3, 4, 5], 8)).toBe(' 2–5')
    expect(holesWords([1, 2, 3, 4], 4)).toBe('')
    expect(holesWords([])).toBe('')
  })

  it('tells people apart by their letters', () => {
    expect([...initials(['Wren', 'Ines', 'Tobiah']).values()]).toEqual(['W', 'I', 'T'])
    expect(initials(['Ines', 'Ida']).get('Ida')).toBe('Id')
  })

  it('adds up the hours of a person week by week', () => {
    const bar = (start: string, hours: number) => ({ start, hours, person: 'Ines' })
    const jobs = [
      { bars: [bar('2026-11-30T08:00', 2), bar('2026-12-09T08:00', 3), bar('2026-12-20T08:00', 9)] },
    ]
    const mondays = ['2026-11-30', '2026-12-07', '2026-12-14']
    expect(hoursByWeek(jobs as never, 'Ines', mondays).slice(0, 2)).toEqual([2, 3])
    expect(hoursByWeek(jobs as never, 'Wren', mondays)).toEqual([0, 0, 0])
  })
})

describe('hours of a day as they are typed', () => {
  it('reads spans, with minutes or without', () => {
    expect(spansOf('8:00-12:00, 13-17.30')).toEqual([
      [480, 720],
      [780, 1050],
    ])
    expect(spansOf('')).toEqual([])
    expect(spanWords([[480, 725]])).toBe('8:00-12:05')
  })

  it('sends what it cannot read as a span that is refused', () => {
    expect(spansOf('early')).toEqual([[1, 0]])
    expect(spansOf('8-25')).toEqual([[1, 0]])
    expect(weekOf(['8-9'])).toEqual([[[480, 540]], [], [], [], [], [], []])
  })
})
