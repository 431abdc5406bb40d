/** What is typed but not taken, spot by spot: it waits where it was typed, over a reload too, and shows nowhere else. */
import { useLocalStorage } from '@vueuse/core'
import { computed, type WritableComputedRef } from 'vue'

export interface SpotDraft {
  /** What stands typed for the spot at hand. */
  typed: WritableComputedRef<string>
  /** Take it as a reading; it is forgotten for its own spot once it was taken, wherever the bench stands by then. */
  take: (send: (text: string) => Promise<boolean>) => Promise<void>
  /** Answer what was asked about what was taken last; where that settles it, it is forgotten for its spot. */
  answer: (send: () => Promise<boolean>) => Promise<void>
}

export function useSpotDraft(name: string, spot: () => string): SpotDraft {
  const drafts = useLocalStorage<Record<string, string>>(name, {})

  function put(at: string, text: string): void {
    const others = Object.entries(drafts.value).filter(([spot]) => spot !== at)
    drafts.value = Object.fromEntries(text === '' ? others : [...others, [at, text]])
  }

  const typed = computed({ get: () => drafts.value[spot()] ?? '', set: (text) => put(spot(), text) })
  let asked = { at: '', text: '' }
  async function answer(send: () => Promise<boolean>): Promise<void> {
    const { at, text } = asked
    if ((await send()) && drafts.value[at] === text) put(at, '')
  }
  function take(send: (text: string) => Promise<boolean>): Promise<void> {
    asked = { at: spot(), text: typed.value }
    return answer(() => send(asked.text))
  }
  return { typed, take, answer }
}
