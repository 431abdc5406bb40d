/** What can be done about the hole of the page: loaded with what the engine is worth, and decided under a name. */
import { useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { chooseOption, type OptionKind, type OptionsView, readOptions } from '@/api/generated'
import { amountAt } from '@/shared/format/amounts'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import { useForm } from '@/shared/ui/useForm'

export function useOptions(job: JobNow, hole: () => number) {
  const draft = useLocalStorage(`vallo-options-${job.jobId}`, { worth: '', day: '', reason: '' })
  const form = useForm()
  const amounts = () => ({
    worth: amountAt('worth', draft.value.worth),
    day_cost: amountAt('day_cost', draft.value.day) ?? 0,
  })
  /** What was typed last and is an amount: a slip is told at its field, and what is shown stays. */
  let query: ReturnType<typeof amounts> = { worth: null, day_cost: 0 }
  const read = () =>
    form.send(() => {
      query = amounts()
      return Promise.resolve()
    })
  const path = () => ({ job_id: job.jobId, hole: hole() })
  const get = () => ask(readOptions({ path: path(), query }))
  const { data: view, refusal, load } = useLoaded<OptionsView>(get)
  const picked = ref<OptionKind | null>(null)
  watch(hole, () => {
    picked.value = null
    void load()
  })
  watch([() => draft.value.worth, () => draft.value.day], () => void read().then(load))
  void read().then(load)
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  const option = computed(() => {
    const kind = picked.value ?? view.value?.suggested ?? 'leave it'
    return view.value?.options.find((one) => one.kind === kind) ?? null
  })
  const take = () =>
    form.send(async () => {
      const { worth } = amounts()
      const body = {
        option_choice_id: newId(),
        option: option.value?.kind ?? 'leave it',
        reason: draft.value.reason,
        worth,
        person_id: personId.value,
      }
      await ask(chooseOption({ path: path(), body }))
      draft.value = { ...draft.value, reason: '' }
      await job.reload()
      await load()
    })
  return { view, refusal, draft, picked, option, form, take }
}
