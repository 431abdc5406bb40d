import { describe, expect, it } from 'vitest'

import { spansOf, spanWords, weekOf, WEEKDAYS } from './hours'

describe('hours of a day as they are typed', () => {
  it('are read with or without minutes, by a comma or a semicolon', () => {
    expect(spansOf('8:00-12:00, 13-17')).toEqual([
      [480, 720],
      [780, 1020],
    ])
    expect(spansOf('7.30 – 11.45; 12-16')).toEqual([
      [450, 705],
      [720, 960],
    ])
    expect(spansOf('')).toEqual([])
    expect(spansOf(' , ')).toEqual([])
  })

  it.each(['8', 'noon to three', '8:00-12:00-13:00', '25-26', '8:5-9'])(
    'go out as a span that is refused: %s',
    (text) => {
      const [span] = spansOf(text)
      expect(span?.[0]).toBeGreaterThan(span?.[1] ?? 0)
    },
  )

  it('come back as they were typed', () => {
    const typed = '8:00-12:00, 13:30-17:05'
    expect(spanWords(spansOf(typed))).toBe(typed)
    expect(spanWords([])).toBe('')
  })

  it('make a week of seven days, those left out free', () => {
    const week = weekOf(['8-16', '8-16'])
    expect(week).toHaveLength(WEEKDAYS.length)
    expect(week[0]).toEqual([[480, 960]])
    expect(week[6]).toEqual([])
  })
})
