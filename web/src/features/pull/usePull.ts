/** The pull of a hole: every turn, depth and feel is on record before the count moves. */
import { useNow } from '@vueuse/core'
import { computed, type ComputedRef, onBeforeUnmount, type Ref, ref, type ShallowRef, watch } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  beginPull,
  bringHome,
  noteOnPull,
  type PullBody,
  type PullMarkKind,
  type PullPageView,
  type PullView,
  readPull,
  undoPullMark,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useLoaded } from '@/shared/state/useLoaded'

export interface PullMore {
  depth?: string
  force_kn?: string
  words?: string
  confirmed?: boolean
}

export interface PullNow {
  page: ShallowRef<PullPageView | null>
  pull: ComputedRef<PullView | null>
  missing: Ref<Refusal | null>
  refusal: Ref<Refusal | null>
  said: Ref<string>
  busy: Ref<boolean>
  elapsed: ComputedRef<number | null>
  begin: (body: Omit<PullBody, 'pull_id' | 'person_id'>) => Promise<boolean>
  note: (kind: PullMarkKind, more?: PullMore) => Promise<boolean>
  undo: () => Promise<void>
  home: () => Promise<boolean>
}

/** What is called out loud as the flange comes down. [mm] */
const CALLS: readonly [number, string][] = [
  [50, 'fifty'],
  [40, 'forty: slow'],
  [20, 'twenty: quarters'],
  [10, 'ten'],
  [5, 'five'],
]

export function callBetween(before: number, after: number): string {
  return CALLS.find(([at]) => before * 1000 > at && after * 1000 <= at)?.[1] ?? ''
}

export function usePull(jobId: string, hole: () => number): PullNow {
  const {
    data: page,
    refusal: missing,
    load,
  } = useLoaded<PullPageView>(() => ask(readPull({ path: { job_id: jobId, hole: hole() } })), hole)
  const pull = computed(() => page.value?.pull ?? null)
  const refusal = ref<Refusal | null>(null)
  const said = ref('')
  const busy = ref(false)
  onBeforeUnmount(onChange((changed) => (changed === null || changed === jobId ? load() : undefined)))
  const path = () => ({ job_id: jobId, hole: hole(), pull_id: pull.value?.pull_id ?? '' })
  const by = () => ({ person_id: personId.value })

  async function write(work: () => Promise<PullPageView | null>): Promise<boolean> {
    refusal.value = null
    busy.value = true
    try {
      await ownChange(jobId, async () => {
        const next = await work()
        if (next) page.value = next
      })
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

  const clock = useNow({ interval: 1000 })
  const loadedAt = ref(Date.now())
  watch(page, () => (loadedAt.value = Date.now()))
  /** What this machine's clock is off against the server's does not count. [s] */
  const elapsed = computed(() => {
    const now = page.value
    if (!now?.pull) return null
    const since = clock.value.getTime() - loadedAt.value
    return Math.max(0, (Date.parse(now.now) - Date.parse(now.pull.began_at) + since) / 1000)
  })

  return {
    page,
    pull,
    missing,
    refusal,
    said,
    busy,
    elapsed,
    begin: (body) =>
      write(() =>
        ask(
          beginPull({ path: { job_id: jobId, hole: hole() }, body: { pull_id: newId(), ...body, ...by() } }),
        ),
      ),
    async note(kind, more = {}) {
      const before = pull.value?.to_go_m ?? 0
      // A tap names the turn that it ends: sent again after a lost answer, it is refused and never counted twice.
      const turn = kind === 'one turn' ? (pull.value?.turns ?? 0) + 1 : null
      const body = { pull_mark_id: newId(), kind, turn, bare_unit: 'mm' as const, ...more, ...by() }
      const done = await write(() => ask(noteOnPull({ path: path(), body })))
      if (!done) return false
      const after = pull.value?.to_go_m ?? 0
      const call = callBetween(before, after)
      const mm = String(Math.round(after * 1000))
      said.value =
        kind === 'one turn' || kind === 'flange to ledge' ? `${mm} mm to go. ${call}` : `${kind}: noted.`
      tell(kind === 'touches' ? 'stop' : call || mm, true)
      return true
    },
    async undo() {
      const last = pull.value?.marks.at(-1)
      if (!last) return
      const body = { pull_mark_id: last.pull_mark_id, ...by() }
      if (await write(() => ask(undoPullMark({ path: path(), body })))) said.value = `Struck: ${last.kind}.`
    },
    async home() {
      const done = await write(async () => {
        await ask(bringHome({ path: path(), body: by() }))
        return null
      })
      if (done) {
        await load()
        await refresh(jobId)
      }
      return done
    },
  }
}
