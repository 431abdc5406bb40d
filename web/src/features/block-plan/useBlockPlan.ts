/** The plans of a block: tried with what is decided of single holes, loaded again after every change, chosen by name. */
import { useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, type Ref, ref, type ShallowRef, watch } from 'vue'

import { ask, type Refusal } from '@/api/ask'
import {
  type BlockPlansView,
  chooseBlockPlan,
  type HoleWishBody,
  type PlanRule,
  readBlockPlan,
  tryBlockPlan,
} from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

export interface Draft {
  /** Null while what was chosen last stands. */
  holes: HoleWishBody[] | null
  undecided: boolean
}

export interface BlockPlanNow {
  plans: ShallowRef<BlockPlansView | null>
  missing: Ref<Refusal | null>
  draft: Ref<Draft>
  wishes: Ref<HoleWishBody[]>
  tried: () => Promise<void>
  forget: () => Promise<void>
  choose: (rule: PlanRule, datum: 'deck' | 'touch-off') => Promise<void>
}

export function useBlockPlan(job: JobNow): BlockPlanNow {
  const path = { job_id: job.jobId }
  const draft = useLocalStorage<Draft>(`vallo-plan-${job.jobId}`, { holes: null, undecided: false })
  const bare = computed(() => (unit.value === 'µm' ? ('mm' as const) : ('thou' as const)))
  const body = () => ({
    holes: draft.value.holes ?? [],
    undecided_too: draft.value.undecided,
    bare_unit: bare.value,
  })
  const {
    data: plans,
    refusal: missing,
    load,
  } = useLoaded<BlockPlansView>(() =>
    ask(draft.value.holes === null ? readBlockPlan({ path }) : tryBlockPlan({ path, body: body() })),
  )
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const kept = computed<HoleWishBody[]>(() =>
    (plans.value?.wishes ?? []).map((one) => ({
      hole: one.hole,
      lock: one.lock,
      shim: one.shim_m === null ? '' : `${(one.shim_m * 1e3).toFixed(3)} mm`,
      target: one.target_m === null ? '' : `${(one.target_m * 1e6).toFixed(1)} µm`,
    })),
  )
  const wishes = ref<HoleWishBody[]>(draft.value.holes ?? [])
  watch(kept, (found) => {
    if (draft.value.holes === null) wishes.value = found
  })
  return {
    plans,
    missing,
    draft,
    wishes,
    tried: async () => {
      draft.value.holes = wishes.value
      await load()
    },
    forget: async () => {
      draft.value = { holes: null, undecided: false }
      wishes.value = []
      await load()
    },
    choose: async (rule, datum) => {
      const holes = draft.value.holes ?? wishes.value
      const chosen = { ...body(), holes, rule, datum, person_id: personId.value }
      await ownChange(job.jobId, async () => void (await ask(chooseBlockPlan({ path, body: chosen }))))
      draft.value = { holes: null, undecided: false }
      await refresh(job.jobId)
    },
  }
}
