/** What would settle an undecided rule, in words. */
import type { SettlingView } from '@/api/generated'

export function settleWords(one: SettlingView): string {
  const ways = []
  if (one.readings) ways.push(`${one.readings} readings there, if their mean stays`)
  if (one.gauges.length) ways.push(one.gauges.join(' or '))
  const what = [one.rule, one.where].filter(Boolean).join(' at ')
  return `${what}: ${ways.length ? ways.join(', or ') : 'no gauge in the cabinet is fine enough'}`
}
