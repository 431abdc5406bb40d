import type { SetupView, ZeroedOn } from '@/api/generated'

/** What a gauge was zeroed on, in words; empty on the datum, where it reads straight. */
export function zeroWords(setup: Pick<SetupView, 'zeroed_on' | 'zero_typed'> | undefined): string {
  if (!setup || setup.zeroed_on === 'datum') return ''
  return `zeroed on the ${setup.zeroed_on}${setup.zero_typed ? ` of ${setup.zero_typed}` : ''}`
}

export const ZERO_CHOICES: { value: ZeroedOn; label: string }[] = [
  { value: 'datum', label: 'the datum: it reads straight' },
  { value: 'setting master', label: 'a setting master: ring, block or rod' },
  { value: 'micrometer', label: 'a micrometer set to a size' },
  { value: 'nominal', label: "the card's nominal" },
  { value: 'low limit', label: "the card's low limit" },
  { value: 'target', label: "the card's target" },
  { value: 'part itself', label: 'the part itself: differences only' },
]

/** On these the gauge stands at a size that has to be known. */
export const stands = (on: ZeroedOn) => on !== 'datum' && on !== 'part itself'
