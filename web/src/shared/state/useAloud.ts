/** Everything aloud, so that nobody has to look: what was taken, how it stands, what comes next. */
import { watch } from 'vue'

import { sayAlso } from './readBack'

export interface Aloud {
  /** What is to be read next, in words; empty where nothing is left. */
  next: () => string
  /** Grows with every reading that was taken here. */
  taken: () => unknown
  /** Grows whenever the application answers with how things stand now. */
  answered: () => unknown
  /** How the reading taken last stands; empty where nobody judges it. */
  verdict: () => string
}

/** The verdict follows the answer of the application, the next place follows the verdict. */
export function useAloud(aloud: Aloud): void {
  let waits = false
  let held = ''

  watch(aloud.taken, (now) => {
    if (now) waits = true
  })
  watch(aloud.next, (now) => {
    const words = now === '' ? 'nothing is left to read' : `next, ${now}`
    if (waits) held = words
    else sayAlso(words)
  })
  watch(aloud.answered, () => {
    if (!waits) return
    waits = false
    const verdict = aloud.verdict()
    if (verdict) sayAlso(verdict)
    if (held) sayAlso(held)
    held = ''
  })
}
