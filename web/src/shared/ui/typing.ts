import { onKeyStroke } from '@vueuse/core'

/** Whether a key goes into a field or an open dialog, where shortcuts stay silent. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target
  if (!(target instanceof HTMLElement)) return false
  return target.closest('input, textarea, select, [contenteditable], [role="dialog"], [role="menu"]') !== null
}

/** Keys that a pedal sends: it is a keyboard with one key. */
const PEDAL = [' ', 'PageDown', 'F8']

/**
 * The pedal counts whatever has the focus. Only what needs the key itself keeps it: a space within a text that is being
 * typed, and what is ticked or unfolded with it.
 */
export function onPedal(run: () => void): void {
  onKeyStroke(PEDAL, (event) => {
    if (event.ctrlKey || event.metaKey || event.repeat || keepsKey(event)) return
    event.preventDefault()
    run()
  })
}

function keepsKey(event: KeyboardEvent): boolean {
  const target = event.target
  if (!(target instanceof HTMLElement)) return false
  if (target.closest('[role="dialog"], [role="menu"]') !== null) return true
  if (event.key !== ' ') return false
  if (target.closest('textarea, select, summary, [contenteditable]') !== null) return true
  const input = target.closest('input')
  return input !== null && (input.type === 'checkbox' || input.type === 'radio' || input.value !== '')
}
