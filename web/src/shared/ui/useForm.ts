/** What every form needs: the refusal shown at its fields, and sending one thing at a time. */
import { computed, provide, type Ref, ref } from 'vue'

import { asRefusal, type Refusal } from '@/api/ask'

import { PROBLEMS, problemsOf } from './problems'

export interface Form {
  refusal: Ref<Refusal | null>
  busy: Ref<boolean>
  /** Send what was typed; a refusal leaves it all as it is and says why. */
  send: (work: () => Promise<void>) => Promise<void>
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

  return { refusal, busy, send }
}
