/** What was taken last at a bench, in words that are also read back. */
import { ref, type Ref } from 'vue'

import { tell } from './readBack'

export interface Taken {
  words: Ref<string>
  /** The reading taken last, once the application has it; empty while it waits. */
  id: Ref<string>
  /** Why the last step on the pedal took nothing; empty where it did. */
  missed: Ref<string>
  say: (where: string, words: string, readingId?: string) => void
  forget: () => void
  /** A pedal that does nothing is heard and seen: whoever steps on it looks at the block. */
  miss: (why: string) => void
}

export function useTaken(): Taken {
  const words = ref('')
  const id = ref('')
  const missed = ref('')

  function forget(): void {
    words.value = ''
    id.value = ''
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

  return { words, id, missed, say, forget, miss }
}
