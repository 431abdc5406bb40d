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
  say: (where: string, words: string, readingId?: string) => void
  forget: () => void
  /** Undo what came last; why it was not, where it was not. */
  takeBack: () => Promise<Refusal | null>
}

export function useTaken(undo: Undo): Taken {
  const words = ref('')
  const id = ref('')
  const undone = ref(false)

  function forget(): void {
    words.value = ''
    id.value = ''
    undone.value = false
  }

  function say(where: string, now: string, readingId = ''): void {
    words.value = where ? `${where}: ${now}` : now
    id.value = readingId
    undone.value = false
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

  return { words, id, undone, say, forget, takeBack }
}
