/** What the screens show of each subject, in one place: lenses on the block, views of a job, views of the shop. */
import type { Quantity } from '@/api/generated'

interface LensRow {
  name: string
  quantity: Quantity
  label: string
  /** What one reading under it is called. */
  what: string
  key: string
}

/** Ways to look at the block: protrusion against its limits, or ledge depth against what the liner needs. */
export const LENSES = [
  { name: 'protrusion', quantity: 'protrusion', label: 'Protrusion', what: 'protrusion', key: 'P' },
  { name: 'counterbore', quantity: 'counterbore depth', label: 'Counterbore', what: 'ledge depth', key: 'K' },
] as const satisfies readonly LensRow[]

export type Lens = (typeof LENSES)[number]['name']

export const HOME_LENS: Lens = LENSES[0].name
/** For the router: the names an address may hold. */
export const LENS_NAMES = LENSES.map((lens) => lens.name).join('|')

/** The lens an address names, the home one where it names none. */
export function lensOf(param: unknown): (typeof LENSES)[number] {
  return LENSES.find((lens) => lens.name === param) ?? LENSES[0]
}

/** Views of one job; `of` are the addresses that belong to each. */
export const JOB_VIEWS: readonly { label: string; name: string; of: readonly string[] }[] = [
  { label: 'Block', name: 'block', of: ['block', 'cut'] },
  { label: 'Measuring', name: 'measure', of: ['measure'] },
  { label: 'Liners', name: 'liners', of: ['liners'] },
  { label: 'Card', name: 'job-card', of: ['job-card'] },
  { label: 'Proof', name: 'proof', of: ['proof', 'import'] },
]

/** What belongs to the shop and not to one job. */
export const SHOP_VIEWS: readonly { label: string; name: string; of: readonly string[] }[] = [
  { label: 'Gauges and people', name: 'shop', of: ['shop'] },
  { label: 'Masters and service', name: 'cabinet', of: ['cabinet'] },
  { label: 'Gauge studies', name: 'studies', of: ['studies', 'study'] },
]
