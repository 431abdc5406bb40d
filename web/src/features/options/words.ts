/** What an option says in words. */
import type { OptionOfHole, OptionsView } from '@/api/generated'

export const percent = (share: number | null) => (share === null ? '–' : `${Math.round(share * 100)} %`)

export function moneyText(value: number | null, currency: string): string {
  if (value === null) return 'not priced'
  return `${Math.round(value).toLocaleString('en')}${currency ? ` ${currency}` : ''}`
}

export function waitText(one: Pick<OptionOfHole, 'hours' | 'days'>): string {
  const days = one.days === 0 ? 'no waiting' : `${one.days} day${one.days === 1 ? '' : 's'} of waiting`
  return `${one.hours.toFixed(1)} h, ${days}`
}

/** How all holes stand afterwards. */
export function standText(one: Pick<OptionOfHole, 'out' | 'unsure' | 'holes' | 'chance'>): string {
  if (one.out) return `${one.out} out${one.unsure ? `, ${one.unsure} cannot tell` : ''}`
  if (one.unsure) return `${one.unsure} cannot tell`
  const unread = one.holes.some((row) => row.state === null)
  return `${percent(one.chance)} in${unread ? ', once read' : ''}`
}

/** The suggested one in a line. */
export function summary(one: OptionOfHole, view: Pick<OptionsView, 'currency'>): string {
  if (one.why_not) return `${capital(one.kind)}: ${one.why_not}`
  const cost = one.money === null ? waitText(one) : `${moneyText(one.money, view.currency)}, ${waitText(one)}`
  return `${capital(one.kind)}: ${percent(one.chance)} all in, for ${cost}`
}

export const capital = (text: string) => text.replace(/^./, (letter) => letter.toUpperCase())
