import type { ShimBody } from '@/api/generated'

/** A shim as it is typed into a form. */
export interface ShimDraft {
  nominal: string
  measured: string
  side_up: NonNullable<ShimBody['side_up']>
}
