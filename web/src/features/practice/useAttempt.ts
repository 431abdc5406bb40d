/** One exercise as it is played: what is shown, what may be done, its own clock; every move goes to the application. */
import { useRafFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { type AttemptView, makeMove, readAttempt } from '@/api/generated'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import { useForm } from '@/shared/ui/useForm'

export function useAttempt(attemptId: () => string) {
  const {
    data: view,
    refusal,
    load,
  } = useLoaded<AttemptView>(() => ask(readAttempt({ path: { attempt_id: attemptId() } })), attemptId)
  const form = useForm()
  const seconds = ref(0)
  const isHeld = ref(false)
  const rate = computed(() => (view.value?.judged || isHeld.value ? 0 : (view.value?.position.rate ?? 0)))
  useRafFn(({ delta }) => {
    if (rate.value > 0) seconds.value += (Math.min(delta, 250) / 1000) * rate.value
  })
  watch(view, (now) => {
    if (now && now.position.at_s > seconds.value) seconds.value = now.position.at_s
  })
  watch(attemptId, () => {
    seconds.value = 0
  })

  const make = (name: string, given: Record<string, string>) =>
    form.send(async () => {
      const now = view.value
      if (!now) return
      const body = {
        place: now.moves,
        name,
        given,
        at_s: Number(seconds.value.toFixed(3)),
        bare_unit: unit.value,
        person_id: personId.value,
      }
      try {
        view.value = await ask(makeMove({ path: { attempt_id: attemptId() }, body }))
      } catch (error) {
        if (error instanceof Object && 'code' in error && error.code === 'stale') await load()
        throw error
      }
    })
  return { view, refusal, form, seconds, isHeld, rate, make }
}
