/** What every form needs: the refusal shown at its fields, and sending one thing at a time. */
import { computed, provide, type Ref, ref } from 'vue'

import { asRefusal, type Refusal, type Suggestion } from '@/api/ask'

import { PROBLEMS, problemsOf } from './problems'

export interface Form {
  refusal: Ref<Refusal | null>
  busy: Ref<boolean>
  /** Send what was typed; a refusal leaves it all as it is and says why. */
  send: (work: () => Promise<void>) => Promise<void>
  /** Answer what is asked: the text offered goes into the field it is asked at, or all is taken as typed. */
  answer: (
    suggestion: Suggestion,
    put: (path: string, text: string) => void,
    again: (confirmed: boolean) => Promise<void>,
  ) => Promise<void>
}

/** A prefix such as "card." of the request's own shape is taken off the paths of the fields. */
export function useForm(prefix = ''): Form {
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  provide(
    PROBLEMS,
    computed(() => problemsOf(refusal.value, prefix)),
  )

  async function send(work: () => Promise<void>): Promise<void> {
    busy.value = true
    refusal.value = null
    try {
      await work()
    } catch (error) {
      refusal.value = asRefusal(error)
    } finally {
      busy.value = false
    }
  }

  async function answer(
    suggestion: Suggestion,
    put: (path: string, text: string) => void,
    again: (confirmed: boolean) => Promise<void>,
  ): Promise<void> {
    const path = refusal.value?.problems[0]?.field ?? ''
    if (!suggestion.confirm) put(path, suggestion.text)
    await again(suggestion.confirm)
  }

  return { refusal, busy, send, answer }
}
