/** Times of a drop counted back: when the liner goes into its cold, when the block into the oven. */
import type { DropPlanView } from '@/api/generated'

export interface Start {
  what: string
  by: string
}

/** Kept over what the soak takes: a door that is opened, a bag, a rack. Common practice, no published source. */
const SPARE = 1.25
const DAY_MIN = 24 * 60

/** ``at`` is a time of day such as 09:00; what goes in the day before says so. */
export function startsOf(at: string, plan: Pick<DropPlanView, 'liner_s' | 'oven_s' | 'medium'>): Start[] {
  const found = /^(\d{1,2}):(\d{2})/.exec(at)
  if (!found) return []
  const drop = Number(found[1]) * 60 + Number(found[2])
  const by = (seconds: number) => {
    const minute = Math.floor(drop - (seconds * SPARE) / 60)
    const ofDay = ((minute % DAY_MIN) + DAY_MIN) % DAY_MIN
    const time = `${String(Math.floor(ofDay / 60)).padStart(2, '0')}:${String(ofDay % 60).padStart(2, '0')}`
    return minute < 0 ? `${time} the day before` : time
  }
  const starts: [number, string][] = []
  if (plan.liner_s !== null && plan.medium) starts.push([plan.liner_s, `liner into the ${plan.medium} by`])
  if (plan.oven_s > 0) starts.push([plan.oven_s, 'block into the oven by'])
  return starts.sort(([a], [b]) => b - a).map(([seconds, what]) => ({ what, by: by(seconds) }))
}
