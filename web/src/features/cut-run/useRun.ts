/** The run of a hole: every tap names the pass that it ends, and the count moves when it is on record. */
import { useIntervalFn, useNow } from '@vueuse/core'
import { computed, type ComputedRef, onBeforeUnmount, type Ref, ref, type ShallowRef, watch } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  beginCutRun,
  type CutHoleView,
  endRunPass,
  finishRun,
  noteOnRun,
  pressPassSwitch,
  readCutRun,
  readPassSwitch,
  type RunMarkKind,
  type RunView,
  undoRunPass,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useLoaded } from '@/shared/state/useLoaded'

/** A switch is asked a few times a second while a run is open. */
const ASK_MS = 200

export interface RunNow {
  here: ShallowRef<CutHoleView | null>
  missing: Ref<Refusal | null>
  run: ComputedRef<RunView | null>
  refusal: Ref<Refusal | null>
  /** What was just done, or why a tap was not counted. */
  said: Ref<string>
  busy: Ref<boolean>
  elapsed: ComputedRef<number | null>
  switchThere: Ref<'none' | 'hand' | 'simulated'>
  begin: (depth: string, shim: string, holdReason: string) => Promise<void>
  endPass: () => Promise<void>
  undoPass: () => Promise<void>
  mark: (
    kind: RunMarkKind,
    more?: { words?: string; depth?: string; confirmed?: boolean },
  ) => Promise<boolean>
  finish: () => Promise<boolean>
  press: () => Promise<void>
}

export function useRun(jobId: string, holeId: () => string | null): RunNow {
  const {
    data: here,
    refusal: missing,
    load,
  } = useLoaded<CutHoleView | null>(
    async () => {
      const id = holeId()
      return id === null ? null : ask(readCutRun({ path: { hole_id: id } }))
    },
    () => holeId() ?? '',
  )
  const run = computed(() => here.value?.run ?? null)
  const refusal = ref<Refusal | null>(null)
  const said = ref('')
  const busy = ref(false)
  const switchThere = ref<'none' | 'hand' | 'simulated'>('none')
  onBeforeUnmount(onChange((changed) => (changed === null || changed === jobId ? load() : undefined)))

  const path = () => ({ hole_id: holeId() ?? '', run_id: run.value?.run_id ?? '' })
  const by = () => ({ person_id: personId.value })

  async function write(work: () => Promise<unknown>): Promise<boolean> {
    refusal.value = null
    busy.value = true
    try {
      await ownChange(jobId, async () => void (await work()))
      await load()
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      return false
    } finally {
      busy.value = false
    }
  }

  /** A second tap on the way names the same pass: the server refuses it, and it is never counted. */
  async function endPass(): Promise<void> {
    const number = (run.value?.count ?? 0) + 1
    said.value = ''
    try {
      const body = { pass_id: newId(), number, ...by() }
      await ownChange(jobId, async () => {
        const answer = await ask(endRunPass({ path: path(), body }))
        if (here.value?.run && (answer.run?.count ?? 0) > here.value.run.count) here.value = answer
      })
      said.value = `Pass ${number} is on record.`
      tell(String(number), true)
      refusal.value = null
      if ((run.value?.count ?? 0) < number) await load()
    } catch (error) {
      const why = asRefusal(error)
      if (why.code === 'stale') {
        said.value = why.message
        tell('not counted', false)
        await load()
      } else refusal.value = why
    }
  }

  let taps: number | null = null
  useIntervalFn(
    () => {
      void (async () => {
        if (run.value === null) return
        const now = await ask(readPassSwitch()).catch(() => null)
        switchThere.value = now?.state !== 'live' ? 'none' : now.simulated ? 'simulated' : 'hand'
        if (now === null) return
        const fresh = taps !== null && now.taps > taps
        taps = now.taps
        if (fresh) await endPass()
      })()
    },
    ASK_MS,
    { immediateCallback: true },
  )

  const clock = useNow({ interval: 1000 })
  const loadedAt = ref(Date.now())
  watch(run, () => (loadedAt.value = Date.now()))
  /** What this machine's clock is off against the server's does not count. */
  const elapsed = computed(() => {
    const now = run.value
    if (!now?.turning_since) return null
    const at = Date.parse(now.now)
    const since = clock.value.getTime() - loadedAt.value
    return Math.max(0, (at - Date.parse(now.turning_since) + since) / 1000)
  })

  return {
    here,
    missing,
    run,
    refusal,
    said,
    busy,
    elapsed,
    switchThere,
    begin: async (depth, shim, holdReason) => {
      const body = { run_id: newId(), depth, shim, hold_reason: holdReason, ...by() }
      await write(() => ask(beginCutRun({ path: { hole_id: holeId() ?? '' }, body })))
      await refresh(jobId)
    },
    endPass,
    undoPass: async () => {
      const number = run.value?.count ?? 0
      if (number > 0 && (await write(() => ask(undoRunPass({ path: path(), body: { number, ...by() } })))))
        said.value = `Pass ${number} is struck.`
    },
    mark: (kind, more = {}) =>
      write(() => ask(noteOnRun({ path: path(), body: { run_mark_id: newId(), kind, ...more, ...by() } }))),
    finish: async () => {
      const done = await write(() => ask(finishRun({ path: path(), body: by() })))
      await refresh(jobId)
      return done
    },
    press: async () => void (await ask(pressPassSwitch()).catch(() => undefined)),
  }
}
