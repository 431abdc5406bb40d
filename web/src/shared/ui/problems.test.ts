import { describe, expect, it } from 'vitest'

import { Refusal } from '@/api/ask'

import { problemAt, problemsOf } from './problems'

const refusal = (field: string) =>
  new Refusal('invalid', 'Put it right.', [{ field, message: 'Type a number here.' }])

describe('what is wrong at a field', () => {
  it('stands at its own path, without what the request is wrapped in', () => {
    const problems = problemsOf(refusal('card.name'), 'card.')
    expect(problemAt(problems, 'name')).toBe('Type a number here.')
    expect(problemAt(problems, 'names')).toBe('')
    expect(problemAt(problems, undefined)).toBe('')
  })

  it('names the entry of a list that is typed as one line', () => {
    const problems = problemsOf(refusal('card.features.0.axes_deg.1'), 'card.')
    expect(problemAt(problems, 'features.0.axes_deg', true)).toBe('Entry 2: Type a number here.')
    expect(problemAt(problems, 'features.0.axes_deg')).toBe('')
    expect(problemAt(problems, 'features.0.axes', true)).toBe('')
    expect(problemAt(problemsOf(refusal('levels.2.depth')), 'levels', true)).toBe(
      'Entry 3: Type a number here.',
    )
  })
})
