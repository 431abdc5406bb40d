/** Unit that a bare number takes: it follows the switch, so that what is typed is what is shown. */
import type { Quantity, ReadingBody } from '@/api/generated'

import { SIZE_WITH, type SmallUnit } from './lengths'

export function bareUnit(quantity: Quantity, unit: SmallUnit): ReadingBody['bare_unit'] {
  return bareFor(quantity !== 'protrusion', unit)
}

/** Sizes are typed in inch or mm; deviations and small lengths as a dial shows them. */
export function bareFor(isSize: boolean, unit: SmallUnit): ReadingBody['bare_unit'] {
  if (isSize) return SIZE_WITH[unit]
  // Nobody reads a dial in single micrometres: bare numbers are its hundredths of a millimetre.
  return unit === 'thou' ? 'thou' : '0.01 mm'
}

/** Shims are bought in thou or in mm. */
export const bareShim = (unit: SmallUnit): ReadingBody['bare_unit'] => (unit === 'thou' ? 'thou' : 'mm')

/** Its name in a sentence: a bare number is hundredths of a mm. */
export function bareWords(unit: ReadingBody['bare_unit']): string {
  return unit === '0.01 mm' ? 'hundredths of a mm' : unit
}
