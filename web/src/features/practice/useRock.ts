/** A hand that tilts a gauge: it follows where it is pushed to, and the needle follows it, frame by frame. */
import { useMediaQuery, useRafFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { type DialShown, shownAt } from './pictures'

/** How much of the way to where it is pushed a hand goes in a sixtieth of a second. */
const FOLLOWS = 0.22
const STEP_DEG = 0.1

export function useRock(dial: () => DialShown) {
  const pushed = ref(-4)
  const tilt = ref(-4)
  const isStill = useMediaQuery('(prefers-reduced-motion: reduce)')
  const value = computed(() => {
    const { rock, value_m } = dial()
    return rock ? shownAt(rock, tilt.value) : value_m
  })
  /** Which way the needle goes: it turns back where the gauge stands square. */
  const goes = ref('')
  /** The same for whoever does not see the needle, and whether it has come to rest. */
  const words = computed(() => (goes.value && !isActive.value ? `${goes.value}, at rest` : goes.value))
  const { isActive, pause, resume } = useRafFn(
    ({ delta }) => {
      const before = value.value
      const share = isStill.value ? 1 : 1 - (1 - FOLLOWS) ** Math.min(6, delta / 16.7)
      tilt.value += (pushed.value - tilt.value) * share
      if (Math.abs(pushed.value - tilt.value) < 0.004) {
        tilt.value = pushed.value
        pause()
      }
      const change = value.value - before
      if (Math.abs(change) > 1e-8) goes.value = change < 0 ? 'needle going back' : 'needle coming up'
    },
    { immediate: false },
  )
  watch(pushed, () => resume())
  watch(
    () => dial().title,
    () => {
      pushed.value = -4
      tilt.value = -4
      goes.value = ''
    },
  )
  const push = (to: number) => (pushed.value = Math.round(Math.max(-4, Math.min(4, to)) * 100) / 100)
  const step = (steps: number) => push(pushed.value + steps * STEP_DEG)
  /** As the gauge stands now, to a hundredth of a degree. */
  const now = () => tilt.value.toFixed(2)
  return { pushed, tilt, value, words, push, step, now }
}
