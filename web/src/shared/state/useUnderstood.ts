/** What a typed reading will be taken for, said before it is taken. */
import { watchDebounced } from '@vueuse/core'
import { ref, type Ref } from 'vue'

import { ask } from '@/api/ask'
import { computeParse, type Quantity, type ReadingBody } from '@/api/generated'
import { otherSmall, sizeText, smallText } from '@/shared/format/lengths'

import { unit } from './preferences'

const PAUSE_MS = 150

/** Words such as "+42 µm, +1.7 thou"; empty while nothing is typed, out of reach, or not understood yet. */
export function useUnderstood(
  text: () => string,
  quantity: () => Quantity,
  bare: () => ReadingBody['bare_unit'],
): Ref<string> {
  const words = ref('')
  let turn = 0

  watchDebounced(
    [text, quantity, bare, unit],
    async () => {
      const mine = ++turn
      const typed = text().trim()
      words.value = ''
      if (typed === '') return
      try {
        const body = { text: typed, bare_unit: bare(), quantity: quantity(), confirmed: true }
        const answer = await ask(computeParse({ body }))
        if (mine === turn && answer.value_m !== null) words.value = bothUnits(answer.value_m, bare())
      } catch {
        // What is no reading yet is said when it is taken.
      }
    },
    { debounce: PAUSE_MS, immediate: true },
  )
  return words
}

function bothUnits(metres: number, bare: ReadingBody['bare_unit']): string {
  const other = otherSmall(unit.value)
  if (bare === 'mm' || bare === 'inch') {
    return `${sizeText(metres, unit.value)}, ${sizeText(metres, other)}`
  }
  return `${smallText(metres, null, unit.value)}, ${smallText(metres, null, other)}`
}
