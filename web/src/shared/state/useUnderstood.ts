/** What a typed reading will be taken for, said before it is taken. */
import { watchDebounced } from '@vueuse/core'
import { onScopeDispose, ref, type Ref } from 'vue'

import { ask } from '@/api/ask'
import { computeParse, type Quantity, type ReadingBody } from '@/api/generated'
import { otherSmall, type SmallUnit, sizeText, smallText } from '@/shared/format/lengths'

import { unit } from './preferences'

const PAUSE_MS = 150

/** Words such as "+42 µm, +1.7 thou"; empty while nothing is typed, out of reach, or not understood yet. */
export function useUnderstood(
  text: () => string,
  quantity: () => Quantity | null,
  bare: () => ReadingBody['bare_unit'],
  /** Size that the gauge was zeroed on: a whole size is understood. [m] */
  zero: () => number = () => 0,
): Ref<string> {
  const words = ref('')
  let turn = 0
  // What was waited for as its view went away is not asked any more.
  let gone = false
  onScopeDispose(() => (gone = true))

  watchDebounced(
    [text, quantity, bare, unit, zero],
    async () => {
      const mine = ++turn
      const typed = text().trim()
      words.value = ''
      if (typed === '' || gone) return
      try {
        const zero_um = zero() > 0 ? String(zero() * 1e6) : null
        const body = { text: typed, bare_unit: bare(), quantity: quantity(), confirmed: true, zero_um }
        const answer = await ask(computeParse({ body }))
        if (mine !== turn || answer.value_m === null) return
        const size = answer.is_whole_size ? `the size ${sizeText(zero() + answer.value_m, unit.value)}, ` : ''
        words.value = size + bothUnits(answer.value_m, answer.is_whole_size ? '0.01 mm' : bare())
      } catch {
        // What is no reading yet is said when it is taken.
      }
    },
    { debounce: PAUSE_MS, immediate: true },
  )
  return words
}

const MOST_DIGITS = 5
/** A very small length is read back with what was typed of it, not as nought. */
function small(metres: number, of: SmallUnit): string {
  const shown = Math.abs(metres) / (of === 'thou' ? 25.4e-6 : 1e-6)
  if (shown === 0 || shown >= 1) return smallText(metres, null, of)
  const digits = Math.min(MOST_DIGITS, 1 - Math.floor(Math.log10(shown)))
  return smallText(metres, null, of, { digits })
}

function bothUnits(metres: number, bare: ReadingBody['bare_unit']): string {
  const other = otherSmall(unit.value)
  if (bare === 'mm' || bare === 'inch') {
    return `${sizeText(metres, unit.value)}, ${sizeText(metres, other)}`
  }
  return `${small(metres, unit.value)}, ${small(metres, other)}`
}
