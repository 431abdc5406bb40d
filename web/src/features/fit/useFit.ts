/** The fit of a hole and a liner: loaded for the hole of the address, and again after every change. */
import { computed, type ComputedRef, onBeforeUnmount, type Ref, ref, type ShallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, type Refusal } from '@/api/ask'
import { type FitView, readFit, type SchoolOfFitView } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'

/** What somebody tries instead of what is taken: friction, the push of a hand, the press aimed at. */
export interface WhatIf {
  aim_m: number | null
  oiled: number
  pull_least: number
  pull_greatest: number
  push_n: number
}

export const TAKEN: WhatIf = { aim_m: null, oiled: 0.1, pull_least: 0.08, pull_greatest: 0.2, push_n: 250 }

export interface FitNow {
  fit: ShallowRef<FitView | null>
  refusal: Ref<Refusal | null>
  hole: ComputedRef<number>
  asIs: ComputedRef<SchoolOfFitView | null>
  /** The school that the fit is held against. */
  wanted: ComputedRef<SchoolOfFitView | null>
  tries: Ref<WhatIf>
  attempt: (changed: Partial<WhatIf>) => void
  go: (to: { hole?: number; liner?: string; school?: string }) => void
  load: () => Promise<void>
}

export function useFit(job: JobNow): FitNow {
  const route = useRoute()
  const router = useRouter()
  const hole = computed(() => Number(route.params['hole']))
  const said = (name: string) => (typeof route.query[name] === 'string' ? String(route.query[name]) : null)
  const tries = ref<WhatIf>({ ...TAKEN })
  const { data, refusal, load } = useLoaded<FitView>(() => {
    const { aim_m, ...others } = tries.value
    const school = said('school')
    return ask(
      readFit({
        path: { job_id: job.jobId, hole: hole.value },
        query: {
          ...others,
          ...(aim_m === null ? {} : { aim_m }),
          ...(said('liner') ? { liner: said('liner') } : {}),
          ...(school === 'light' || school === 'firm' ? { school } : {}),
        },
      }),
    )
  }, hole)
  // Another liner or school belongs to the same hole: what stands is shown until the next is there.
  watch([() => said('liner'), () => said('school'), tries], () => void load(), { deep: true })
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const named = (name: string | undefined) => data.value?.schools.find((one) => one.name === name) ?? null
  return {
    fit: data,
    refusal,
    hole,
    asIs: computed(() => named('as it is')),
    wanted: computed(() => named(data.value?.wanted?.school)),
    tries,
    attempt: (changed) => (tries.value = { ...tries.value, ...changed }),
    go: ({ hole: to, ...query }) => {
      // A liner belongs to the hole that it was looked at in.
      const kept = to === undefined ? { ...route.query, ...query } : { school: said('school') ?? undefined }
      void router.replace({ params: { ...route.params, hole: String(to ?? hole.value) }, query: kept })
    },
    load,
  }
}
