/** Screens on which the page is laid out anew and not only smaller: a phone, or any window looked at enlarged. */
import { useMediaQuery } from '@vueuse/core'
import type { Ref } from 'vue'

export const useNarrow = (): Ref<boolean> => useMediaQuery('(width < 64rem)')

/** A phone, on which a drawing is drawn anew, as wide as the screen is. */
export const usePhone = (): Ref<boolean> => useMediaQuery('(width < 40rem)')
