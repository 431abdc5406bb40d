/** Graduations of the rule: one each quarter hour planned, the hours longer, the beginning longest. */
export interface Tick {
  at: number
  from: number
}

const AN_HOUR = 4

export function ticksOf(hours: number): Tick[] {
  const count = Math.max(1, Math.round(hours * AN_HOUR))
  return Array.from({ length: count }, (_, at) => ({ at, from: at === 0 ? 0 : at % AN_HOUR === 0 ? 3 : 6 }))
}
