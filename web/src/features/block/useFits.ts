/** Every hole's fit, loaded when its lens is looked at, and again after every change. */
import { onBeforeUnmount, type ShallowRef, watch } from 'vue'

import { ask } from '@/api/ask'
import { type FitsView, readFits } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'

import type { BlockPlace } from './place'

export function useFits(job: JobNow, place: BlockPlace): ShallowRef<FitsView | null> {
  const isSeen = () => place.lens.value === 'fit'
  const { data, load } = useLoaded<FitsView | null>(() =>
    isSeen() ? ask(readFits({ path: { job_id: job.jobId } })) : Promise.resolve(null),
  )
  watch(place.lens, () => (isSeen() ? void load() : undefined))
  onBeforeUnmount(
    onChange((changed) => (isSeen() && (changed === null || changed === job.jobId) ? load() : undefined)),
  )
  return data
}
