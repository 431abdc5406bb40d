/** A drop that is planned: what somebody tries is kept in this browser, and the plan follows every slider. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, onBeforeUnmount, type Ref, type ShallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'

import { ask, type Refusal } from '@/api/ask'
import { type HeatPlanView, readHeatPlan } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'

/** Temperatures [°C], clearance wanted [m], humidity [1], seconds, kilograms. */
export interface Tried {
  block_c: number
  liner_c: number
  wanted_m: number
  air_c: number
  humidity: number
  enter_s: number
  home_s: number
  block_kg: number
  wiped: boolean
  pocket_wet: boolean
}

export const FIRST: Tried = {
  block_c: 80,
  liner_c: -18,
  wanted_m: 38.1e-6,
  air_c: 20,
  humidity: 0.5,
  enter_s: 40,
  home_s: 5,
  block_kg: 30,
  wiped: true,
  pocket_wet: false,
}

export interface HeatNow {
  view: ShallowRef<HeatPlanView | null>
  refusal: Ref<Refusal | null>
  hole: ComputedRef<number>
  tried: Ref<Tried>
}

/** What somebody tries for a job, kept in this browser until a run puts it on record. */
export function useTried(jobId: string): Ref<Tried> {
  return useLocalStorage<Tried>(`vallo-heat-${jobId}`, { ...FIRST }, { mergeDefaults: true })
}

export function useHeat(job: JobNow): HeatNow {
  const route = useRoute()
  const hole = computed(() => Number(route.params['hole']))
  const tried = useTried(job.jobId)
  const liner = () => (typeof route.query['liner'] === 'string' ? { liner: route.query['liner'] } : {})
  const get = () =>
    ask(
      readHeatPlan({ path: { job_id: job.jobId, hole: hole.value }, query: { ...tried.value, ...liner() } }),
    )
  const { data: view, refusal, load } = useLoaded<HeatPlanView>(get, hole)
  watch(tried, () => void load(), { deep: true })
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  return { view, refusal, hole, tried }
}
