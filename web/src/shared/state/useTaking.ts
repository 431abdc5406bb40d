/** What both benches do alike: take what the gauge says or what is typed, answer what is asked back, by key or pedal. */
import { onKeyStroke, until } from '@vueuse/core'
import { nextTick, type WritableComputedRef } from 'vue'

import type { Suggestion } from '@/api/ask'
import { isTyping, onPedal } from '@/shared/ui/typing'

import type { Capture, ReadBefore } from './useCapture'
import { useSpotDraft } from './useSpotDraft'

interface TakingAt {
  /** Name under which what is typed waits, and the spot it belongs to. */
  drafts: string
  spot: () => string
  capture: Capture
  /** What the gauge says now, null where nothing can be taken, and what is in the way then. */
  said: () => string | null
  trouble: () => string
  /** The line to type on. */
  line: () => { focus: () => void; blur: () => void } | null
}

export interface Taking {
  typed: WritableComputedRef<string>
  takeFromGauge: (readBefore?: '' | 'repeat') => void
  takeTyped: () => Promise<void>
  again: (answer: Suggestion | ReadBefore) => Promise<void>
}

export function useTaking(at: TakingAt): Taking {
  const { capture } = at
  const { typed, take, answer } = useSpotDraft(at.drafts, at.spot)

  function takeFromGauge(readBefore: '' | 'repeat' = ''): void {
    const text = at.said()
    if (text !== null) void capture.take({ text, readBefore, fromGauge: true })
    else capture.taken.miss(at.trouble() || 'Nothing to take.')
  }

  /** What is typed while the reading before is under way waits its turn, at the spot it was typed for. */
  async function isItsTurn(): Promise<boolean> {
    const asked = [at.spot(), typed.value]
    await until(capture.busy).toBe(false)
    return at.spot() === asked[0] && typed.value === asked[1]
  }

  async function takeTyped(): Promise<void> {
    if (!(await isItsTurn())) return
    // The pedal counts again at once.
    at.line()?.blur()
    await take((text) => capture.take({ text }))
    if (capture.refusal.value !== null) at.line()?.focus()
  }

  return { typed, takeFromGauge, takeTyped, again: (what) => answer(() => capture.again(what)) }
}

/** Keys of a bench; a pedal is a keyboard with one key, and works whatever has the focus. ``moves`` names keys. */
export function useTakingKeys(capture: Capture, taking: Taking, moves: Record<string, () => void>): void {
  const free = (run: () => void) => (event: KeyboardEvent) => {
    if (isTyping(event) || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    run()
  }
  onPedal(() => taking.takeFromGauge())
  for (const [key, move] of Object.entries(moves)) onKeyStroke(key, free(move))
  onKeyStroke(
    'r',
    free(() => (capture.refusal.value ? void taking.again('repeat') : taking.takeFromGauge('repeat'))),
  )
  onKeyStroke(
    'c',
    free(() => void (capture.refusal.value ? taking.again('correct') : undefined)),
  )
  onKeyStroke('z', (event) => {
    if ((event.ctrlKey || event.metaKey) && !isTyping(event)) void capture.takeBack()
  })
}

/** Any digit, sign or point opens the line. */
export function useTypingAnywhere(taking: Taking, line: () => { focus: () => void } | null): void {
  onKeyStroke(
    (event) => /^[0-9.,+−-]$/.test(event.key),
    (event) => {
      if (isTyping(event) || event.ctrlKey || event.metaKey) return
      event.preventDefault()
      taking.typed.value += event.key
      void nextTick(() => line()?.focus())
    },
  )
}
