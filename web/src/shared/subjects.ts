/** What the screens show of each subject, in one place: lenses on the block, views of a job, views of the shop. */
import type { LensName, Quantity } from '@/api/generated'

export type Lens = LensName

interface LensRow {
  name: Lens
  label: string
  /** What one reading under it is called. */
  what: string
  key: string
  /** The one feature it shows; null where it shows several, or holds them against each other. */
  quantity: Quantity | null
}

/** Ways to look at the block; which of them a job has, and in what order, its construction decides. */
export const LENSES: readonly LensRow[] = [
  { name: 'protrusion', label: 'Protrusion', what: 'protrusion', key: 'P', quantity: 'protrusion' },
  { name: 'counterbore', label: 'Counterbore', what: 'ledge depth', key: 'K', quantity: 'counterbore depth' },
  { name: 'fit', label: 'Fit', what: 'fit', key: 'F', quantity: null },
  { name: 'bore', label: 'Bore', what: 'bore', key: 'O', quantity: null },
  { name: 'distortion', label: 'Distortion', what: 'distortion', key: 'D', quantity: null },
  { name: 'clearance', label: 'Clearance', what: 'clearance', key: 'C', quantity: null },
]

/** What is read round the clock of a hole, and has the bench of the block. */
export type ClockLens = 'protrusion' | 'counterbore'
export const isClockLens = (name: Lens): name is ClockLens => name === 'protrusion' || name === 'counterbore'

/** For the router: the names an address may hold. */
export const LENS_NAMES = LENSES.map((lens) => lens.name).join('|')
export const CLOCK_LENS_NAMES = LENSES.map((lens) => lens.name)
  .filter(isClockLens)
  .join('|')

const FIRST = LENSES[0] as LensRow

/** The lens an address names, protrusion where it names none. */
export function lensOf(param: unknown): LensRow {
  return LENSES.find((lens) => lens.name === param) ?? FIRST
}

export function clockLensOf(param: unknown): { name: ClockLens; quantity: Quantity } {
  return param === 'counterbore'
    ? { name: 'counterbore', quantity: 'counterbore depth' }
    : { name: 'protrusion', quantity: 'protrusion' }
}

/** Views of one job; `of` are the addresses that belong to each. */
export const JOB_VIEWS: readonly {
  label: string
  name: string
  of: readonly string[]
  /** Lenses of which a job has one, where it is not for every job; with a minus, one that it must not have. */
  lens?: Lens | `-${Lens}`
}[] = [
  { label: 'Block', name: 'home', of: ['block', 'fit', 'hot-fit', 'heat', 'heat-run', 'conversion'] },
  { label: 'Route', name: 'route', of: ['route', 'time'] },
  { label: 'Prepare', name: 'prepare', of: ['prepare'] },
  {
    label: 'Cut plan',
    name: 'cut-plan',
    of: ['cut-plan', 'cut', 'matching', 'swaps', 'options', 'adds-up'],
    lens: 'counterbore',
  },
  { label: 'Measuring', name: 'measure', of: ['measure', 'strip-record', 'grid'] },
  {
    label: 'Bores',
    name: 'bores',
    of: ['bores', 'wall', 'boring', 'honing', 'pistons', 'plate', 'mains', 'deck'],
    lens: '-counterbore',
  },
  { label: 'Liners', name: 'liners', of: ['liners'], lens: 'fit' },
  { label: 'Money', name: 'money', of: ['money', 'bill', 'parts'] },
  { label: 'Card', name: 'job-card', of: ['job-card'] },
  { label: 'Proof', name: 'proof', of: ['proof', 'import', 'labels'] },
]

/** What belongs to the shop and not to one job. */
export const SHOP_VIEWS: readonly { label: string; name: string; of: readonly string[] }[] = [
  { label: 'Gauges and people', name: 'shop', of: ['shop'] },
  { label: 'Masters and service', name: 'cabinet', of: ['cabinet'] },
  { label: 'Shelf', name: 'shelf', of: ['shelf'] },
  { label: 'Cutters', name: 'cutters', of: ['cutters'] },
  { label: 'Pullers', name: 'press-tools', of: ['press-tools'] },
  { label: 'Plates', name: 'fixtures', of: ['fixtures'] },
  { label: 'Prices', name: 'prices', of: ['prices', 'reckon'] },
  { label: 'Learned', name: 'learned', of: ['learned'] },
  { label: 'Hours', name: 'shop-time', of: ['shop-time'] },
  { label: 'Lands', name: 'lands', of: ['lands'] },
  { label: 'Cases', name: 'cases', of: ['cases', 'known-causes'] },
  { label: 'Gauge studies', name: 'studies', of: ['studies', 'study'] },
  { label: 'Schools', name: 'schools', of: ['schools'] },
  { label: 'Record', name: 'record', of: ['record'] },
]
