/** A shim size of the card with the unit that a bare number takes there. */
import type { CardUnit } from '@/api/generated'

export function shimText(typed: string, cardUnit: CardUnit): string {
  if (typed === '' || /[a-zµ"]/i.test(typed)) return typed
  return `${typed} ${cardUnit === 'mm' ? 'mm' : 'thou'}`
}
