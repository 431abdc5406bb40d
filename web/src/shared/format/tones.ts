/** The one place that says how a state looks in letters and in drawings; its word always stands beside it. */
import type { Capability, State } from '@/api/generated'

/** A word or gate that says the state. */
export const STATE_TONE: Record<State, string> = {
  in: 'text-in',
  out: 'text-out',
  'cannot tell': 'text-unsure',
  'not measured': 'text-ink-soft',
  'read again': 'text-ink-soft',
}

/** A number among others: only what is not in stands out. */
export const NUMBER_TONE: Record<State, string> = {
  in: '',
  out: 'font-bold text-out',
  'cannot tell': 'font-bold text-unsure',
  'not measured': '',
  'read again': 'text-ink-soft',
}

/** Letters in a drawing. */
export const FILL_TONE: Record<State, string> = {
  in: 'fill-in',
  out: 'fill-out',
  'cannot tell': 'fill-unsure',
  'not measured': 'fill-ink-soft',
  'read again': 'fill-ink-soft',
}

/** Whether a gauge is fit for what it is to decide. */
export const CAPABILITY_TONE: Record<Capability, string> = {
  good: 'text-in',
  marginal: 'text-unsure',
  'wrong tool': 'text-out',
}

/** A mark on a drawing: what stands on a moved zero is unsure whatever its value, what no limit judges is plain. */
export function markTone(mark: { doubtful: boolean; state: State | null }): string {
  if (mark.doubtful || mark.state === 'cannot tell') return STATE_TONE['cannot tell']
  return mark.state === 'out' || mark.state === 'in' ? STATE_TONE[mark.state] : 'text-part'
}
