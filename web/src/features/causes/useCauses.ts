/** What does not add up on a job, and what is done about it: one thing at a time, on record. */
import { useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import {
  beginExperiment,
  type CausesView,
  keepCase,
  type Matter,
  type NextCheckView,
  readCauses,
  settleExperiment,
} from '@/api/generated'
import { amountAt } from '@/shared/format/amounts'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import { useForm } from '@/shared/ui/useForm'

const NOTHING = { value: '', words: '', minutes: '', money: '', change: '', expected: '' }

export function useCauses(job: JobNow) {
  const route = useRoute()
  const router = useRouter()
  const matter = computed<Matter>({
    get: () => (route.query['of'] === 'bores' ? 'bores' : 'heights'),
    set: (of) => void router.replace({ query: of === 'bores' ? { of } : {} }),
  })
  const get = () => ask(readCauses({ path: { job_id: job.jobId }, query: { matter: matter.value } }))
  const { data: view, refusal, load } = useLoaded<CausesView>(get)
  watch(matter, () => void load())
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const draft = useLocalStorage(`vallo-causes-${job.jobId}`, { ...NOTHING })
  const form = useForm()
  const picked = ref<string | null>(null)
  /** The check at hand: the one chosen, else the one that tells most a minute. */
  const check = computed(
    () => view.value?.checks.find((one) => keyOf(one) === picked.value) ?? view.value?.checks[0] ?? null,
  )
  const open = computed(() => view.value?.tried.find((one) => one.is_open) ?? null)
  const path = { job_id: job.jobId }

  const begin = (change: string, expected: string, of: NextCheckView | null) =>
    form.send(async () => {
      const body = {
        experiment_id: newId(),
        matter: matter.value,
        check: of?.name ?? '',
        holes: of?.where ?? [],
        change,
        expected,
        person_id: personId.value,
      }
      await ask(beginExperiment({ path, body }))
      picked.value = null
      draft.value = { ...NOTHING }
      await job.reload()
      await load()
    })
  const settle = () =>
    form.send(async () => {
      const one = open.value
      if (!one) return
      const body = {
        value: draft.value.value,
        bare_unit: unit.value,
        words: draft.value.words,
        minutes: amountAt('minutes', draft.value.minutes) ?? minutesSince(one.begun_at),
        money: amountAt('money', draft.value.money),
        person_id: personId.value,
      }
      await ask(settleExperiment({ path: { ...path, experiment_id: one.experiment_id }, body }))
      draft.value = { ...NOTHING }
      await job.reload()
      await load()
    })
  const keep = (symptom: string, cause: string, words: string) =>
    form.send(async () => {
      const body = {
        case_id: newId(),
        matter: matter.value,
        symptom,
        cause,
        words,
        person_id: personId.value,
      }
      await ask(keepCase({ path, body }))
      await job.reload()
      await load()
    })
  return { matter, view, refusal, draft, form, picked, check, open, begin, settle, keep }
}

export const keyOf = (one: NextCheckView) => `${one.name} ${one.where.join(',')}`

/** Whole minutes since then: what it took is what the clock says until somebody says otherwise. */
export const minutesSince = (when: string) =>
  Math.max(1, Math.round((Date.now() - Date.parse(when)) / 60_000))
