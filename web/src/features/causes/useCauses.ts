/** What does not add up, with what checks were tried here; nothing of a trial is recorded. */
import { useLocalStorage } from '@vueuse/core'
import { onBeforeUnmount, watch } from 'vue'

import { ask } from '@/api/ask'
import { type CausesView, type FoundBody, tryCauses } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'

export function useCauses(job: JobNow) {
  const tried = useLocalStorage<FoundBody[]>(`vallo-causes-${job.jobId}`, [])
  const get = () => ask(tryCauses({ path: { job_id: job.jobId }, body: { findings: tried.value } }))
  const { data: view, refusal, load } = useLoaded<CausesView>(get)
  watch(tried, () => void load(), { deep: true })
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  return { view, refusal, tried }
}
