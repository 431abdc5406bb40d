/** Whether a key goes into a field or an open dialog, where shortcuts stay silent. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target
  if (!(target instanceof HTMLElement)) return false
  return target.closest('input, textarea, select, [contenteditable], [role="dialog"], [role="menu"]') !== null
}
