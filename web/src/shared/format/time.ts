/** When something was recorded: the time today, with the day otherwise. */
export function whenText(iso: string, now: Date = new Date()): string {
  const when = new Date(iso)
  const time = when.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  if (when.toDateString() === now.toDateString()) return time
  return `${when.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${time}`
}
