/** Where passes stopped round the clock, and the ledge unrolled with its passes. */

export interface DialStop {
  number: number
  hour: number
  x: number
  y: number
}

export const onDial = (hour: number, radius: number, centre = 150) => ({
  x: centre + radius * Math.sin((hour * Math.PI) / 6),
  y: centre - radius * Math.cos((hour * Math.PI) / 6),
})

/** The newest stop of each hour: what was there before is under it. */
export function stopsOf(passes: { number: number; stop_hour: number }[], radius: number): DialStop[] {
  const newest = new Map<number, number>()
  for (const one of passes) newest.set(one.stop_hour, one.number)
  return [...newest].map(([hour, number]) => ({ number, hour, ...onDial(hour, radius) }))
}

/** Depth of the present ledge at an hour, straight between the positions read. [m] */
export function depthAt(ledge: { hour: number; depth_m: number }[], hour: number): number {
  const sorted = [...ledge].sort((a, b) => (a.hour % 12) - (b.hour % 12))
  if (sorted.length === 0) return 0
  const at = hour % 12
  const next = sorted.find((one) => one.hour % 12 >= at) ?? sorted[0]
  const before = [...sorted].reverse().find((one) => one.hour % 12 <= at) ?? sorted.at(-1)
  if (!next || !before) return 0
  const span = (((next.hour - before.hour) % 12) + 12) % 12
  const from = (((at - before.hour) % 12) + 12) % 12
  return span === 0 ? before.depth_m : before.depth_m + ((next.depth_m - before.depth_m) * from) / span
}

/** Minutes and seconds. */
export function clockText(seconds: number): string {
  const whole = Math.floor(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
