/** Keys of the block view; they stay silent while something is typed. */
import { onKeyStroke } from '@vueuse/core'

import type { BlockView } from '@/api/generated'
import { stepHour } from '@/shared/format/clock'
import { type Lens, LENSES } from '@/shared/subjects'
import { isTyping } from '@/shared/ui/typing'

import type { BlockPlace } from './place'
import type { Bores } from './useBores'

export interface KeyActions {
  type: (character: string) => void
  act: () => void
  undo: () => void
  bench: () => void
  /** All holes in one grid. */
  grid: () => void
  /** Level and axis of a bore, where that is looked at. */
  bores: Pick<Bores, 'stepLevel' | 'stepAxis'>
}

export function useBlockKeys(block: () => BlockView | null, place: BlockPlace, actions: KeyActions): void {
  function turnClock(step: 1 | -1): void {
    const hours = block()?.card.required_hours ?? []
    place.go({ hour: stepHour(hours, place.hour.value, step) })
  }

  const isBore = () => place.lens.value === 'bore'
  const turn = (step: 1 | -1) => (isBore() ? actions.bores.stepAxis(step) : turnClock(step))
  function down(step: 1 | -1): void {
    if (isBore()) actions.bores.stepLevel(step)
  }

  function stepHole(step: 1 | -1): void {
    const numbers = block()?.holes.map((hole) => hole.number) ?? []
    const at = place.number.value === null ? (step > 0 ? -1 : 0) : numbers.indexOf(place.number.value)
    place.go({ hole: numbers[(at + step + numbers.length) % numbers.length] ?? null })
  }

  const togglePanel = (panel: string) => place.go({ open: place.open.value === panel ? '' : panel })
  /** A letter whose lens this construction has not does nothing. */
  function look(lens: Lens): void {
    if (block()?.lenses.some((one) => one.name === lens)) place.go({ lens })
  }
  const plain: Record<string, () => void> = {
    '[': () => turn(-1),
    ']': () => turn(1),
    ArrowUp: () => down(-1),
    ArrowDown: () => down(1),
    ArrowLeft: () => stepHole(-1),
    ArrowRight: () => stepHole(1),
    ...Object.fromEntries(LENSES.map((lens) => [lens.key.toLowerCase(), () => look(lens.name)])),
    w: () => togglePanel('why'),
    t: () => togglePanel('tape'),
    b: actions.bench,
    g: actions.grid,
    Escape: () => place.go({ open: '' }),
  }

  onKeyStroke(true, (event) => {
    const withControl = event.ctrlKey || event.metaKey
    if (withControl && event.key === 'Enter') {
      event.preventDefault()
      return actions.act()
    }
    const emptyField = event.target instanceof HTMLInputElement && event.target.value === ''
    if (withControl && event.key === 'z' && (!isTyping(event) || emptyField)) {
      event.preventDefault()
      return actions.undo()
    }
    if (withControl || event.altKey || isTyping(event)) {
      const inEmptyEntry = emptyField && event.target.id === 'entry'
      if (inEmptyEntry && (event.key === '[' || event.key === ']')) {
        event.preventDefault()
        plain[event.key]?.()
      }
      return
    }
    if (/^[0-9+\-−.,#]$/.test(event.key)) {
      event.preventDefault()
      return actions.type(event.key)
    }
    const action = plain[event.key.length === 1 ? event.key.toLowerCase() : event.key]
    if (event.key.startsWith('Arrow') && event.key !== 'ArrowLeft' && event.key !== 'ArrowRight' && !isBore())
      return
    if (action) {
      event.preventDefault()
      action()
    }
  })
}
