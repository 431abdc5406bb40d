/** The wall of a hole: loaded for the hole of the address, and again after every change. */
import { computed, type ComputedRef, onBeforeUnmount, ref, type Ref, type ShallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, type Refusal } from '@/api/ask'
import {
  type FindingBody,
  noteFinding,
  type Quantity,
  readScans,
  readWall,
  type ScansView,
  type ScanView,
  type WallView,
} from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

import { scansShown, type Shown, shownOf, showsOf } from './shown'

export interface WallNow {
  wall: ShallowRef<WallView | null>
  refusal: Ref<Refusal | null>
  hole: ComputedRef<number>
  shows: ComputedRef<Shown[]>
  shown: ComputedRef<Shown | null>
  show: (key: string) => void
  expanded: Ref<boolean>
  scans: ShallowRef<ScansView | null>
  /** The scan, or the change of two, that is shown. */
  scan: ComputedRef<ScanView | null>
  /** Gaussian filter of scans in undulations per revolution; off by default. */
  cutOff: Ref<number | null>
  /** The level that table, picture and numbers follow. [m] */
  depth: Ref<number | null>
  goTo: (hole: number) => void
  note: (body: Omit<FindingBody, 'person_id'>) => Promise<void>
  load: () => Promise<void>
}

export function useWall(job: JobNow): WallNow {
  const route = useRoute()
  const router = useRouter()
  const hole = computed(() => Number(route.params['hole']))
  const of = computed(() => (route.query['of'] as Quantity | undefined) ?? null)
  const expanded = ref(false)
  const depth = ref<number | null>(null)
  const { data, refusal, load } = useLoaded<WallView>(
    () =>
      ask(
        readWall({
          path: { job_id: job.jobId, hole: hole.value },
          query: { ...(of.value ? { of: of.value } : {}), expanded: expanded.value },
        }),
      ),
    () => `${hole.value} ${of.value ?? ''}`,
  )
  const cutOff = ref<number | null>(null)
  const { data: scans, load: loadScans } = useLoaded<ScansView>(
    () =>
      ask(
        readScans({
          path: { job_id: job.jobId },
          query: { hole: hole.value, ...(cutOff.value ? { cut_off_upr: cutOff.value } : {}) },
        }),
      ),
    hole,
  )
  watch(cutOff, () => void loadScans())
  watch(expanded, () => void load())
  watch(hole, () => (depth.value = null))
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? loadBoth() : undefined)))
  const loadBoth = async () => void (await Promise.all([load(), loadScans()]))
  const shows = computed(() =>
    data.value ? [...showsOf(data.value), ...(scans.value ? scansShown(scans.value) : [])] : [],
  )
  const shown = computed(() => shownOf(shows.value, route.query['show']))
  return {
    wall: data,
    refusal,
    hole,
    shows,
    shown,
    show: (key) => void router.replace({ query: { ...route.query, show: key } }),
    expanded,
    scans,
    scan: computed(() => {
      const at = /^(scan|scan-change)-(\d+)$/.exec(shown.value?.key ?? '')
      if (!at || !scans.value) return null
      return (at[1] === 'scan' ? scans.value.scans : scans.value.changes)[Number(at[2])] ?? null
    }),
    cutOff,
    depth,
    goTo: (to) => void router.push({ params: { hole: String(to) }, query: route.query }),
    async note(body) {
      await ownChange(job.jobId, async () => {
        await ask(noteFinding({ path: { job_id: job.jobId }, body: { ...body, person_id: personId.value } }))
      })
      await refresh(job.jobId)
      await loadBoth()
    },
    load: loadBoth,
  }
}
