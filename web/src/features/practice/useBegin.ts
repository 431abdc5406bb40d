/** Beginning an exercise: it gets an address of its own, so that a page loaded again goes on. */
import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { beginAttempt } from '@/api/generated'
import { newId } from '@/shared/newId'
import { personId } from '@/shared/state/preferences'
import { useForm } from '@/shared/ui/useForm'

export function useBegin() {
  const router = useRouter()
  const form = useForm()
  const begin = (exercise: string, seed: number | null = null) =>
    form.send(async () => {
      const body = { attempt_id: newId(), exercise, seed, person_id: personId.value }
      const begun = await ask(beginAttempt({ body }))
      await router.push({ name: 'exercise', params: { attempt: begun.attempt_id } })
    })
  return { begin, form }
}
