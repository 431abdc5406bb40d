/** Sentences and arithmetic with numbers, written in the unit chosen. */
import type { PhraseView, StepView, TermView } from '@/api/generated'

import { exactSmall, lengthText, SIZE_WITH, type SmallUnit, uncertaintyText } from './lengths'

export interface Piece {
  /** Words, or the digits of a number. */
  text: string
  /** Unit of a number; empty for words and plain counts. */
  unit: string
  number: boolean
}

/** One number with its unit; a step of arithmetic shows as many digits as there are. */
export function termText(term: TermView, unit: SmallUnit, exact = true): string {
  switch (term.kind) {
    case 'small':
      return `${exact ? exactSmall(term.value, unit) : lengthText(term.value, unit)} ${unit}`
    case 'within':
      return `${uncertaintyText(term.value, unit)} ${unit}`
    case 'size':
      return `${lengthText(term.value, SIZE_WITH[unit])} ${SIZE_WITH[unit]}`
    case 'angle':
      return `${term.value.toFixed(0)}°`
    case 'share':
      return `${(100 * term.value).toFixed(0)} %`
    case 'count':
      return String(Number(term.value.toFixed(2)))
  }
}

/** The sentence cut into words and numbers. */
export function phrasePieces(phrase: PhraseView, unit: SmallUnit): Piece[] {
  const terms = new Map(phrase.terms.map((term) => [term.symbol, term]))
  return phrase.text
    .split(/(\{[^}]+\})/)
    .filter((part) => part !== '')
    .map((part) => {
      const term = terms.get(part.slice(1, -1))
      if (!part.startsWith('{') || !term) return { text: part, unit: '', number: false }
      const [digits = '', ...rest] = termText(term, unit, false).split(' ')
      return { text: digits, unit: rest.join(' '), number: true }
    })
}

/** The numbers that went into a step, each with what it is. */
export function stepTerms(step: StepView, unit: SmallUnit): string[] {
  return step.terms.map(
    (term) => `${term.symbol} = ${termText(term, unit)}${term.note ? ` (${term.note})` : ''}`,
  )
}
