/** Clock positions [h]: 12 h comes first, as people read them out. */
export function hourText(hour: number): string {
  return `${hour}h`
}

export function roundTheClock(hours: readonly number[]): number[] {
  return [...hours].sort((a, b) => (a % 12) - (b % 12))
}

/** The next position round the clock, or the one before. */
export function stepHour(hours: readonly number[], present: number | null, step: 1 | -1): number | null {
  const order = roundTheClock(hours)
  if (order.length === 0) return null
  const at = present === null ? -1 : order.indexOf(present)
  if (at < 0) return order[step > 0 ? 0 : order.length - 1] ?? null
  return order[(at + step + order.length) % order.length] ?? null
}
