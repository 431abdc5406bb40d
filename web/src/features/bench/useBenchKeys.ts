/** Keys of the bench; a pedal is a keyboard with one key, and works whatever has the focus. */
import { onKeyStroke } from '@vueuse/core'

import { isTyping, onPedal } from '@/shared/ui/typing'

import type { Bench } from './useBench'

interface BenchActions {
  take: () => void
  repeat: () => void
  again: (answer: 'repeat' | 'correct') => Promise<void>
}

export function useBenchKeys(bench: Bench, actions: BenchActions): void {
  const free = (run: () => void) => (event: KeyboardEvent) => {
    if (isTyping(event) || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    run()
  }
  onPedal(actions.take)
  onKeyStroke(
    ['ArrowRight', ']'],
    free(() => bench.step(1)),
  )
  onKeyStroke(
    ['ArrowLeft', '['],
    free(() => bench.step(-1)),
  )
  onKeyStroke(
    'r',
    free(() => void (bench.refusal.value ? actions.again('repeat') : actions.repeat())),
  )
  onKeyStroke(
    'c',
    free(() => void (bench.refusal.value ? actions.again('correct') : undefined)),
  )
  onKeyStroke('z', (event) => {
    if ((event.ctrlKey || event.metaKey) && !isTyping(event)) void bench.takeBack()
  })
}
