/** The areas of practice, in the order of the work. */
import type { Area } from '@/api/generated'

export const AREAS: readonly { key: Area; label: string }[] = [
  { key: 'measure', label: 'Measure' },
  { key: 'cut', label: 'Cut' },
  { key: 'fit', label: 'Fit and heat' },
  { key: 'bore', label: 'Bore and hone' },
  { key: 'whole job', label: 'Whole job' },
  { key: 'own', label: 'Of this shop' },
]
