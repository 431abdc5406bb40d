/** The matching of the job as it is wished here: locks, goals in their order, with cuts or without; and its choice. */
import { useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, watch } from 'vue'

import { ask } from '@/api/ask'
import { chooseMatching, type Goal, type MatchingView, readMatching } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import { useForm } from '@/shared/ui/useForm'

export function useMatching(job: JobNow) {
  const kept = <T>(name: string, usual: T) => useLocalStorage<T>(`vallo-match-${name}-${job.jobId}`, usual)
  const locked = kept<number[]>('locked', [])
  const goals = kept<Goal[]>('goals', [])
  const cuts = kept('cuts', true)
  const path = { job_id: job.jobId }
  const wishes = () => ({ locked: locked.value, goals: goals.value, cuts: cuts.value })
  const {
    data: view,
    refusal,
    load,
  } = useLoaded<MatchingView>(() => ask(readMatching({ path, query: wishes() })))
  watch([locked, goals, cuts], () => void load(), { deep: true })
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const form = useForm()
  const choose = () =>
    form.send(async () => {
      const order = (view.value?.holes ?? []).map((one) => one.then)
      await ask(chooseMatching({ path, body: { ...wishes(), order, person_id: personId.value } }))
      await job.reload()
      await load()
    })
  const lock = (hole: number) => {
    locked.value = locked.value.includes(hole)
      ? locked.value.filter((one) => one !== hole)
      : [...locked.value, hole]
  }
  const proven = computed(() => view.value?.goals.every((one) => one.proven) ?? false)
  return { view, refusal, locked, goals, cuts, lock, choose, form, proven }
}
