/** Choices of this browser: unit, person, ground. They survive a reload. */
import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

import type { SmallUnit } from '@/shared/format/lengths'

export const unit = useLocalStorage<SmallUnit>('vallo-unit', 'µm')
/** A job comes up in its card's units until somebody chooses others for it. */
export const unitOfJob = useLocalStorage<Record<string, SmallUnit>>('vallo-unit-of-job', {})
/** The unit chosen by hand: for the job that the address names also before its block is here. */
export function chooseUnit(chosen: SmallUnit): void {
  unit.value = chosen
  const job = /^\/jobs\/([^/]+)/.exec(window.location.pathname)?.[1]
  if (job !== undefined) unitOfJob.value = { ...unitOfJob.value, [job]: chosen }
}
export const personId = useLocalStorage<string>('vallo-person', '')
/** A first visit is shown the invented job, with what to try on it until that is put away. */
export const welcome = useLocalStorage<'new' | 'shown' | 'done'>('vallo-welcome', 'new')
export const ground = useLocalStorage<'light' | 'dark'>('vallo-ground', 'light')

watchEffect(() => {
  document.documentElement.dataset['ground'] = ground.value
})
