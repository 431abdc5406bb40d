/** Money as it is written and reckoned on the screen. What is agreed and billed is reckoned by the server alone. */
export type Amount = number | string

export const number = (value: Amount | null | undefined) => Number(value ?? 0)
export const money = (value: Amount | null | undefined) =>
  number(value).toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })
export const hours = (value: Amount | null | undefined) => number(value).toFixed(2)

/** Hundredths of what was typed; NaN where it is no amount. */
export function hundredths(text: Amount): number {
  const found = /^\d{1,8}(?:[.,]\d{1,2})?$/.exec(String(text).trim())
  return found ? Math.round(Number(String(text).trim().replace(',', '.')) * 100) : Number.NaN
}

export interface TypedLine {
  sheet: 'parts' | 'labour with machining'
  key: string
  words: string
  low: string
  worst: string
  tax: string
}

/** About what the typed lines come to, to be seen while typing: the estimate itself is added up where it is kept. */
export function about(lines: readonly TypedLine[], rate: Amount): { low: number; worst: number } {
  const each = (line: TypedLine, text: string) => {
    const amount = hundredths(text)
    if (Number.isNaN(amount)) return 0
    return line.sheet === 'parts' ? amount / 100 : Math.round((amount * number(rate) * 100) / 100) / 100
  }
  return {
    low: lines.reduce((sum, line) => sum + each(line, line.low), 0),
    worst: lines.reduce((sum, line) => sum + each(line, line.worst), 0),
  }
}
