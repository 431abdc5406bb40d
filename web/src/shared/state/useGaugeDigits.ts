/** Decimals that the gauge in use supports: what is shown follows what was read, quantity by quantity. */
import { inject } from 'vue'

import type { Quantity } from '@/api/generated'
import { digitsFor, SIZE_WITH } from '@/shared/format/lengths'

import { JOB } from './job'
import { unit } from './preferences'

export interface GaugeDigits {
  /** Of small lengths of what is read, in the unit shown. */
  small: (quantity: Quantity) => number
  /** Of its sizes, in the unit shown. */
  size: (quantity: Quantity) => number
}

/** Outside a job, or before a gauge is chosen, the usual digits. */
export function useGaugeDigits(): GaugeDigits {
  const job = inject(JOB, null)
  const step = (quantity: Quantity) =>
    Number(job?.block.value?.setups.find((one) => one.quantity === quantity)?.gauge.resolution_um ?? 0) / 1e6
  return {
    small: (quantity) => digitsFor(step(quantity), unit.value),
    size: (quantity) => digitsFor(step(quantity), SIZE_WITH[unit.value]),
  }
}
