/** A drop as it stands with what waits for the link: the clock runs on, and the next step is asked for. */
import type { DropMarkBody, DropView, HeatMarkKind } from '@/api/generated'

const FELT: readonly HeatMarkKind[] = ['dropped', 'pushed', 'driven']
type Kept = Pick<DropMarkBody, 'kind' | 'at'>

export function withKept(drop: DropView, kept: readonly Kept[]): DropView {
  return kept.reduce(withMark, drop)
}

function withMark(drop: DropView, { kind, at }: Kept): DropView {
  const moment = at ?? null
  if (kind === 'liner out of the cold') {
    return { ...drop, state: 'out of the cold', out_at: moment, next_step: drop.sheet[0]?.kind ?? null }
  }
  const since = drop.out_at && moment ? Math.max(0, (Date.parse(moment) - Date.parse(drop.out_at)) / 1000) : 0
  if (drop.sheet.some((one) => one.kind === kind)) {
    const sheet = drop.sheet.map((one) => (one.kind === kind ? { ...one, done_s: since } : one))
    const isIn = kind === 'enters'
    return {
      ...drop,
      sheet,
      state: isIn ? 'in the hole' : drop.state,
      entered_s: isIn ? since : drop.entered_s,
      next_step: isIn ? null : (sheet.find((one) => one.done_s === null)?.kind ?? null),
    }
  }
  if (FELT.includes(kind)) return { ...drop, state: 'home: hold it down', goes_on: false, home: kind }
  const told: Partial<Record<HeatMarkKind, DropView['state']>> = {
    stuck: 'stuck',
    'goes on': 'in the hole',
    'held down': 'held down',
    'let go': 'let go',
  }
  return { ...drop, state: told[kind] ?? drop.state }
}
