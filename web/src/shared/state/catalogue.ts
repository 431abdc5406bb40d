/** The feature catalogue of the application: what is known of each kind of measured feature. */
import { useLocalStorage } from '@vueuse/core'

import { ask } from '@/api/ask'
import { type CatalogueRow, type Quantity, readCatalogue } from '@/api/generated'

/** Kept for a page loaded again while the application is out of reach. */
export const catalogue = useLocalStorage<CatalogueRow[]>('vallo-catalogue', [])

export async function loadCatalogue(): Promise<void> {
  catalogue.value = await ask(readCatalogue())
}

export const featureOf = (quantity: Quantity): CatalogueRow | null =>
  catalogue.value.find((one) => one.quantity === quantity) ?? null
