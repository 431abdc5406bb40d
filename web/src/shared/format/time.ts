/** The day it is here, as a date field writes it; the clock of the world may be a day ahead. */
export function dayText(now: Date = new Date()): string {
  const two = (part: number) => String(part).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}

/** When something was recorded: the time today, with the day otherwise. */
export function whenText(iso: string, now: Date = new Date()): string {
  const when = new Date(iso)
  const time = when.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  if (when.toDateString() === now.toDateString()) return time
  return `${when.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${time}`
}
