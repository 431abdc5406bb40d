/** What was taken last at a bench, in words that are also read back. */
import { ref, type Ref, watch } from 'vue'

import { sentLast } from './outbox'
import { tell } from './readBack'

export interface Taken {
  words: Ref<string>
  /** The reading taken last, once the application has it; empty while it waits. */
  id: Ref<string>
  /** Why the last step on the pedal took nothing; empty where it did. */
  missed: Ref<string>
  say: (where: string, words: string, readingId?: string, waitingId?: string) => void
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

  /** A reading that waited is sent some time: then it is said so. */
  let waitsAs = ''
  watch(sentLast, (sent) => {
    if (waitsAs === '' || sent !== waitsAs) return
    words.value = words.value.replace(', waiting for the link', ', sent')
    waitsAs = ''
  })

  function say(where: string, now: string, readingId = '', waitingId = ''): void {
    forget()
    waitsAs = waitingId
    words.value = where ? `${where}: ${now}` : now
    id.value = readingId
    tell(now, true)
  }

  return { words, id, missed, say, forget, miss }
}
