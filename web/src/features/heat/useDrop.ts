/** A drop that runs: every moment is on record with its own time, thermometers are written down while the clock runs. */
import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, onBeforeUnmount, type Ref, ref, type ShallowRef } from 'vue'
import { useRoute } from 'vue-router'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  beginDrop,
  type DropBody,
  type DropMarkBody,
  type DropPageView,
  type DropView,
  type HeatMarkKind,
  noteOnDrop,
  readDrop,
  takeDropTemperatures,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import { linkFailed, onChange, ownChange, refresh } from '@/shared/state/link'
import type { JobNow } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useServerClock } from '@/shared/state/serverClock'
import { useLoaded } from '@/shared/state/useLoaded'

import { withKept } from './keptMarks'

export interface DropMore {
  celsius?: string
  height?: string
  words?: string
  bare_unit?: DropMarkBody['bare_unit']
  confirmed?: boolean
}

export interface DropRun {
  page: ShallowRef<DropPageView | null>
  drop: ComputedRef<DropView | null>
  hole: ComputedRef<number>
  missing: Ref<Refusal | null>
  refusal: Ref<Refusal | null>
  busy: Ref<boolean>
  said: Ref<string>
  /** Seconds since the liner left the cold; nought before. */
  elapsed: ComputedRef<number>
  /** By the server's clock. [ms] */
  clock: ComputedRef<number>
  /** Marks that wait for the link. */
  waiting: ComputedRef<number>
  begin: (body: Omit<DropBody, 'heat_run_id' | 'person_id'>) => Promise<boolean>
  note: (kind: HeatMarkKind, more?: DropMore) => Promise<boolean>
  load: () => Promise<void>
}

/** Thermometers are asked for that often while a clock runs; the server keeps what it needs of it. */
const READ_MS = 2_000
const RUNNING = [
  'ready to come out of the cold',
  'out of the cold',
  'in the hole',
  'home: hold it down',
  'held down',
]

export function useDrop(job: JobNow): DropRun {
  const route = useRoute()
  const hole = computed(() => Number(route.params['hole']))
  const path = () => ({ job_id: job.jobId, hole: hole.value })
  const {
    data: page,
    refusal: missing,
    load,
  } = useLoaded<DropPageView>(() => ask(readDrop({ path: path() })), hole)
  // What cannot be sent is kept with the moment it was, over a reload too, and sent before anything else.
  const kept = useLocalStorage<{ run: string; body: DropMarkBody }[]>(`vallo-drop-${job.jobId}`, [])
  const waiting = computed(() => kept.value.length)
  const drop = computed(() => {
    const known = page.value?.drop
    if (!known) return null
    const mine = kept.value.filter((one) => one.run === known.heat_run_id)
    return withKept(
      known,
      mine.map((one) => one.body),
    )
  })
  const clock = useServerClock(
    computed(() => page.value?.now ?? null),
    () => load(),
  )
  const elapsed = computed(() => {
    const out = drop.value?.out_at
    return out ? Math.max(0, (clock.value - Date.parse(out)) / 1000) : 0
  })
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  const said = ref('')
  const by = () => ({ person_id: personId.value })

  async function write(work: () => Promise<DropPageView>): Promise<boolean> {
    refusal.value = null
    busy.value = true
    try {
      await ownChange(job.jobId, async () => void (page.value = await work()))
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      tell('not taken', false)
      if (refusal.value.code === 'stale') await load()
      return false
    } finally {
      busy.value = false
    }
  }

  let sending = false

  async function sendKept(): Promise<void> {
    if (sending) return
    sending = true
    try {
      while (kept.value[0]) {
        const { run, body } = kept.value[0]
        page.value = await ask(noteOnDrop({ path: { ...path(), heat_run_id: run }, body }))
        kept.value = kept.value.slice(1)
      }
    } catch (error) {
      const why = asRefusal(error)
      if (why.code === 'unavailable') linkFailed()
      else {
        refusal.value = why
        kept.value = kept.value.slice(1)
      }
    } finally {
      sending = false
    }
  }

  async function note(kind: HeatMarkKind, more: DropMore = {}): Promise<boolean> {
    const run = drop.value?.heat_run_id ?? ''
    const at = new Date(clock.value).toISOString()
    const body = { heat_mark_id: newId(), kind, at, bare_unit: 'mm' as const, ...more, ...by() }
    if (
      waiting.value === 0 &&
      (await write(() => ask(noteOnDrop({ path: { ...path(), heat_run_id: run }, body }))))
    ) {
      said.value = `${kind}: noted.`
      tell(kind, true)
      if (page.value?.is_filled) await refresh(job.jobId)
      return true
    }
    if (waiting.value === 0 && refusal.value?.code !== 'unavailable') return false
    refusal.value = null
    kept.value = [...kept.value, { run, body }]
    said.value = `${kind}: waits for the link with its own time.`
    return true
  }

  async function readOn(): Promise<void> {
    await sendKept()
    const now = drop.value
    if (!now || busy.value || waiting.value || !RUNNING.includes(now.state)) return
    const taken = await ask(
      takeDropTemperatures({ path: { ...path(), heat_run_id: now.heat_run_id }, body: by() }),
    ).catch(() => null)
    // What was pressed in the meantime has the newer answer.
    if (taken && !busy.value && taken.hole === hole.value) page.value = taken
  }
  useIntervalFn(() => void readOn(), READ_MS)

  return {
    page,
    drop,
    hole,
    missing,
    refusal,
    busy,
    said,
    elapsed,
    clock,
    waiting,
    load,
    note,
    begin: (body) =>
      write(() => ask(beginDrop({ path: path(), body: { heat_run_id: newId(), ...body, ...by() } }))),
  }
}
