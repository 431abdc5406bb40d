/** Everything aloud, so that nobody has to look: what was taken, how it stands, what comes next. */
import { watch } from 'vue'

import { sayAlso } from './readBack'

export interface Aloud {
  /** What is to be read next, in words; empty where nothing is left. */
  next: () => string
  /** What was taken last, in words; empty where nothing was. */
  taken: () => string
  /** Whether the page knows how it stands: the application answered with it, or cannot be asked. */
  isKnown: () => boolean
  /** How it stands; empty where nobody judges it. */
  verdict: () => string
}

/** The verdict follows the answer of the application, the next place follows the verdict. */
export function useAloud(aloud: Aloud): void {
  let waits = false
  let held = ''

  function settle(): void {
    if (!waits || !aloud.isKnown()) return
    waits = false
    const verdict = aloud.verdict()
    if (verdict) sayAlso(verdict)
    if (held) sayAlso(held)
    held = ''
  }

  watch(aloud.taken, (now) => {
    waits = now !== ''
    settle()
  })
  watch(aloud.next, (now) => {
    const words = now === '' ? 'nothing is left to read' : `next, ${now}`
    if (waits) held = words
    else sayAlso(words)
  })
  watch(aloud.isKnown, settle)
}
