/** Where work goes on after something was done to a hole: its first position, under the lens that is next. */
import type { RouteLocationRaw } from 'vue-router'

import type { JobNow } from '@/shared/state/job'
import type { Lens } from '@/shared/subjects'

export function firstPosition(job: JobNow, lens: Lens, hole: number): RouteLocationRaw {
  const hour = job.block.value?.card.required_hours[0]
  return {
    name: 'block',
    params: { job: job.jobId, lens, hole: String(hole) },
    query: hour === undefined ? {} : { at: String(hour) },
  }
}
