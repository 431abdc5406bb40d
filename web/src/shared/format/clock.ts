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

/** Clock position of an angle counted clockwise from the front, and back. */
export const hourOfAngle = (angle: number) => {
  const hour = (((angle / 30 + 9) % 12) + 12) % 12
  return hour === 0 ? 12 : hour
}
export const angleOfHour = (hour: number) => (30 * (hour - 9) + 360) % 360
/** 5.67 h as people say it: 5:40. */
export function clockText(hour: number): string {
  const minutes = Math.round((hour % 12) * 60)
  const whole = Math.floor(minutes / 60) % 12
  return `${whole === 0 ? 12 : whole}:${String(minutes % 60).padStart(2, '0')}`
}
