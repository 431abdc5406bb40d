/** Liners going in, hole by hole: what is proposed, what was looked at, recorded one after the other. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef, reactive, ref, type Ref } from 'vue'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import { type BlockView, type HoleView, readCutPlan, type ReadyTick, recordFitting } from '@/api/generated'
import { bareShim } from '@/shared/format/bareUnit'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { ownChange, refresh } from '@/shared/state/link'
import { personId, unit } from '@/shared/state/preferences'
import type { Undo } from '@/shared/state/useUndo'

/** What has to be looked at before a liner goes in. */
export const READY: readonly ReadyTick[] = ['clean and dry', 'lead-in and seals', 'marked, right way round']

export interface FitDraft {
  id: string
  /** The cut it was proposed after: another cut proposes anew. */
  cut: string
  liner: string
  shim: string
  measured: string
  ready: boolean
}

export interface FitRows {
  open: ComputedRef<HoleView[]>
  drafts: Ref<Record<string, FitDraft>>
  asked: Record<string, Refusal>
  ready: ComputedRef<HoleView[]>
  busy: Ref<boolean>
  record: () => Promise<void>
  /** One hole again, after what it was asked about. */
  again: (hole: HoleView, confirmed: boolean, holdReason?: string) => Promise<void>
  answer: (hole: HoleView, suggestion: Suggestion) => Promise<void>
}

const shimOf = (hole: HoleView): string => {
  const um = Number(hole.last_cut?.shim_um ?? 0)
  if (um <= 0) return ''
  return unit.value === 'thou' ? `${Number((um / 25.4).toFixed(2))} thou` : `${(um / 1000).toFixed(3)} mm`
}

export function useFitRows(job: JobNow, undo: Undo, block: () => BlockView): FitRows {
  const drafts = useLocalStorage<Record<string, FitDraft>>(`vallo-fits-${job.jobId}`, {})
  const asked = reactive<Record<string, Refusal>>({})
  const busy = ref(false)
  const open = computed(() => block().holes.filter((hole) => hole.liner === null))

  /** The liner that the hole was cut for; else those on the bench in their order. */
  async function propose(): Promise<void> {
    const wanted = await Promise.all(
      open.value.map((hole) =>
        hole.last_cut
          ? ask(readCutPlan({ path: { hole_id: hole.hole_id } })).catch(() => null)
          : Promise.resolve(null),
      ),
    )
    const named = wanted.map((plan) => plan?.liner_mark ?? '')
    const free = block()
      .liners.filter((one) => one.hole === null)
      .map((one) => one.liner.mark)
    const rest = free.filter((mark) => !named.includes(mark))
    open.value.forEach((hole, at) => {
      const cut = hole.last_cut?.cut_id ?? ''
      const before = drafts.value[hole.hole_id]
      if (before && before.cut === cut) return
      const liner = named[at] || rest.shift() || ''
      drafts.value[hole.hole_id] = { id: '', cut, liner, shim: shimOf(hole), measured: '', ready: false }
    })
  }

  async function send(hole: HoleView, confirmed: boolean, holdReason: string): Promise<void> {
    const draft = drafts.value[hole.hole_id]
    if (!draft) return
    draft.id ||= newId()
    delete asked[hole.hole_id]
    const shims = draft.shim
      ? [{ nominal: draft.shim, measured: draft.measured, side_up: 'bevel down' as const }]
      : []
    const body = {
      fitting_id: draft.id,
      liner_mark: draft.liner,
      shims,
      bare_unit: bareShim(unit.value),
      confirmed,
      ready: draft.ready ? [...READY] : [],
      hold_reason: holdReason,
      person_id: personId.value,
    }
    await ownChange(job.jobId, () => ask(recordFitting({ path: { hole_id: hole.hole_id }, body })))
    undo.did()
    delete drafts.value[hole.hole_id]
  }

  async function again(hole: HoleView, confirmed: boolean, holdReason = ''): Promise<void> {
    busy.value = true
    try {
      await undo.inTurn(() => send(hole, confirmed, holdReason))
    } catch (error) {
      asked[hole.hole_id] = asRefusal(error)
    } finally {
      busy.value = false
    }
    await refresh(job.jobId)
  }

  const ready = computed(() => open.value.filter((hole) => drafts.value[hole.hole_id]?.ready))
  /** One hole after the other: what is asked about one does not hold up the next. */
  async function record(): Promise<void> {
    for (const hole of ready.value) await again(hole, false)
  }

  async function answer(hole: HoleView, suggestion: Suggestion): Promise<void> {
    const draft = drafts.value[hole.hole_id]
    if (draft && !suggestion.confirm) {
      const field = asked[hole.hole_id]?.problems[0]?.field ?? ''
      if (field.endsWith('measured')) draft.measured = suggestion.text
      else draft.shim = suggestion.text
    }
    await again(hole, suggestion.confirm)
  }

  void propose()
  return { open, drafts, asked, ready, busy, record, again, answer }
}
