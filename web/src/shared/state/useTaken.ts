/** What was taken last at a bench, in words that are also read back, until it is undone. */
import { ref, type Ref } from 'vue'

import type { Refusal } from '@/api/ask'

import { tell } from './readBack'
import type { Undo } from './useUndo'

export interface Taken {
  words: Ref<string>
  /** The reading taken last, once the application has it; empty while it waits. */
  id: Ref<string>
  undone: Ref<boolean>
  /** Why the last step on the pedal took nothing; empty where it did. */
  missed: Ref<string>
  say: (where: string, words: string, readingId?: string) => void
  forget: () => void
  /** A pedal that does nothing is heard and seen: whoever steps on it looks at the block. */
  miss: (why: string) => void
  /** Undo what came last; why it was not, where it was not. */
  takeBack: () => Promise<Refusal | null>
}

export function useTaken(undo: Undo): Taken {
  const words = ref('')
  const id = ref('')
  const undone = ref(false)
  const missed = ref('')

  function forget(): void {
    words.value = ''
    id.value = ''
    undone.value = false
    missed.value = ''
  }

  function miss(why: string): void {
    forget()
    missed.value = why
    tell(why, false)
  }

  function say(where: string, now: string, readingId = ''): void {
    forget()
    words.value = where ? `${where}: ${now}` : now
    id.value = readingId
    tell(now, true)
  }

  async function takeBack(): Promise<Refusal | null> {
    if (await undo.undo()) {
      forget()
      undone.value = true
      tell('undone', true)
    }
    return undo.refusal.value
  }

  return { words, id, undone, missed, say, forget, miss, takeBack }
}
