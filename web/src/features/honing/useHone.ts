/** A hole that is honed: loaded for hole and aim of the address, its round counted against the server's clock. */
import { useNow } from '@vueuse/core'
import { computed, type ComputedRef, onBeforeUnmount, type Ref, ref, type ShallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  beginHoneRound,
  type HoneAim,
  type HoneSettingBody,
  type HoneStage,
  type HoneView,
  noteOnHoneRound,
  readHoning,
  setHone,
  stopHoneRound,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useLoaded } from '@/shared/state/useLoaded'
import type { Undo } from '@/shared/state/useUndo'

export interface HoneNow {
  view: ShallowRef<HoneView | null>
  missing: Ref<Refusal | null>
  refusal: Ref<Refusal | null>
  busy: Ref<boolean>
  said: Ref<string>
  /** Since the round began [s]; null while none turns. */
  elapsed: ComputedRef<number | null>
  /** Double strokes of the turning round by the clock. */
  strokes: ComputedRef<number>
  load: () => Promise<void>
  set: (made: Omit<HoneSettingBody, 'setting_id' | 'person_id' | 'aim'>) => Promise<void>
  begin: (holdReason: string) => Promise<void>
  stop: (counted: number | null) => Promise<void>
  cleaned: () => Promise<void>
}

export function useHone(job: JobNow, undo: Undo): HoneNow {
  const route = useRoute()
  const aim = computed<HoneAim>(() => (route.params['aim'] === 'sleeve' ? 'sleeve' : 'piston'))
  const path = () => ({ job_id: job.jobId, hole: Number(route.params['hole']) })
  const {
    data: view,
    refusal: missing,
    load,
  } = useLoaded<HoneView>(
    () => ask(readHoning({ path: path(), query: { aim: aim.value } })),
    () => `${String(route.params['hole'])} ${aim.value}`,
  )
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  const said = ref('')

  const clock = useNow({ interval: 250 })
  const loadedAt = ref(Date.now())
  watch(view, () => (loadedAt.value = Date.now()))
  /** What this machine's clock is off against the server's does not count. */
  const elapsed = computed(() => {
    const now = view.value
    if (!now?.turning) return null
    const since = clock.value.getTime() - loadedAt.value
    return Math.max(0, (Date.parse(now.now) - Date.parse(now.turning.begun_at) + since) / 1000)
  })
  const strokes = computed(() =>
    Math.floor(((elapsed.value ?? 0) / 60) * (view.value?.setting?.strokes ?? 0)),
  )

  async function write(work: () => Promise<HoneView>): Promise<void> {
    if (busy.value) return
    refusal.value = null
    said.value = ''
    busy.value = true
    try {
      await ownChange(job.jobId, async () => void (view.value = await work()))
      undo.did()
      await load()
    } catch (error) {
      refusal.value = asRefusal(error)
      if (refusal.value.code === 'stale') await load()
    } finally {
      busy.value = false
    }
  }
  const by = () => ({ person_id: personId.value })
  const ofRound = (id: string) => ({ ...path(), round_id: id })
  // Ids are kept until they are taken: sent again after a lost answer it is the same step.
  let [setting, round, mark] = [newId(), newId(), newId()]
  let stopped: number | null = null

  return {
    view,
    missing,
    refusal,
    busy,
    said,
    elapsed,
    strokes,
    load,
    set: async (made) => {
      await ownChange(job.jobId, async () => {
        const body = { ...made, aim: aim.value, setting_id: setting, ...by() }
        view.value = await ask(setHone({ path: path(), body }))
        setting = newId()
      })
    },
    begin: (holdReason) =>
      write(async () => {
        const stage: HoneStage = view.value?.stage ?? 'fine'
        const body = { round_id: round, aim: aim.value, stage, hold_reason: holdReason, ...by() }
        const now = await ask(beginHoneRound({ path: path(), body }))
        round = newId()
        tell('go', true)
        return now
      }),
    stop: (counted) =>
      write(async () => {
        const id = view.value?.turning?.round_id ?? ''
        // The stones stopped when the key was pressed, however often it has to be sent.
        stopped ??= Math.max(1, strokes.value)
        const many = counted ?? stopped
        const body = { hone_mark_id: mark, strokes: many, ...by() }
        const now = await ask(stopHoneRound({ path: ofRound(id), body }))
        mark = newId()
        stopped = null
        tell(String(many), true)
        said.value = `Stopped after ${many} double strokes.`
        return now
      }),
    cleaned: () =>
      write(async () => {
        const id = view.value?.made.at(-1)?.round_id ?? ''
        const now = await ask(noteOnHoneRound({ path: ofRound(id), body: { hone_mark_id: mark, ...by() } }))
        mark = newId()
        said.value = 'Stones cleaned.'
        return now
      }),
  }
}
