/** What is shown large of a drop, and what is called out: seconds left, the step that is due, minutes held down. */
import type { DropView, HeatMarkKind } from '@/api/generated'

export interface Large {
  digits: string
  words: string
  tone: 'text-ink' | 'text-act' | 'text-out' | 'text-in'
}

/** Nearer to the end than this the digits turn. [s] */
const SOON_S = 10

export function clockText(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds))
  if (whole < 100) return String(whole)
  const pad = (many: number) => String(many).padStart(2, '0')
  const hours = Math.floor(whole / 3600)
  const rest = `${pad(Math.floor((whole % 3600) / 60))}:${pad(whole % 60)}`
  return hours ? `${hours}:${rest}` : rest.replace(/^0/, '')
}

/** What the next step is late moves all that follows, the end of the window too, until the server has said so. [s] */
export function slipOf(drop: DropView, elapsed: number): number {
  const next = drop.sheet.find((one) => one.kind === drop.next_step)
  return drop.state === 'out of the cold' && next ? Math.max(0, elapsed - next.due_s) : 0
}

export function largeOf(drop: DropView, elapsed: number): Large {
  const by = drop.window?.home_by_s ?? null
  if (!drop.window && drop.goes_on) {
    return {
      digits: clockText(elapsed),
      words: 'seconds out; no window: read hole and liner',
      tone: 'text-out',
    }
  }
  if (drop.state === 'out of the cold' || drop.state === 'in the hole') {
    if (by === null)
      return { digits: clockText(elapsed), words: 'seconds out, the window stays open', tone: 'text-in' }
    const left = by + slipOf(drop, elapsed) - elapsed
    if (left <= 0) {
      const words =
        drop.state === 'in the hole' ? 'the window has closed' : 'closed: back to the cold with it'
      return { digits: '0', words, tone: 'text-out' }
    }
    return {
      digits: clockText(left),
      words: 'seconds left to be home',
      tone: left < SOON_S ? 'text-act' : 'text-ink',
    }
  }
  if (drop.state === 'stuck')
    return { digits: clockText(elapsed), words: 'seconds out: stuck', tone: 'text-out' }
  if (drop.state === 'home: hold it down' || drop.state === 'held down') {
    const left = drop.hold ? drop.hold.until_s - elapsed : 0
    return left > 0
      ? { digits: clockText(left), words: 'held down until within 5 K of the room', tone: 'text-ink' }
      : { digits: '0:00', words: 'cold: read the block, then let go', tone: 'text-in' }
  }
  if (drop.state === 'let go') return { digits: 'home', words: `${drop.liner} is let go`, tone: 'text-in' }
  if (by === null) return { digits: '∞', words: 'the window stays open', tone: 'text-in' }
  return { digits: clockText(by), words: 'seconds from the cold to home, by the plan', tone: 'text-ink' }
}

/** What is called as the clock passes from one look to the next: the step that is due, and the last five seconds. */
export function callBetween(drop: DropView, before: number, after: number): string {
  const passes = (at: number) => before < at && after >= at
  const step = drop.sheet.find((one) => one.done_s === null && passes(one.due_s - STEP_AHEAD_S))
  if (step && drop.state === 'out of the cold') return STEP_WORDS[step.kind] ?? step.kind
  const by = drop.window?.home_by_s ?? null
  if (by === null || (drop.state !== 'out of the cold' && drop.state !== 'in the hole')) return ''
  if (slipOf(drop, after) > 0) return ''
  const left = [5, 4, 3, 2, 1].find((one) => passes(by - one))
  return left === undefined ? (passes(by) ? 'closed' : '') : String(left)
}

/** A step is called so long before it is due, as an order to be done by then. [s] */
const STEP_AHEAD_S = 3

/** Steps as an order, and whose they are. */
export const STEP_WORDS: Partial<Record<HeatMarkKind, string>> = {
  'bag off': 'bag off',
  'wiped and dried': 'wipe and dry',
  'compound or grease on': 'compound or grease',
  'over the hole, square': 'over the hole, square',
  enters: 'let it in',
}

/** Under the picture there is room for a word or two. */
export const SHORT_STEPS: Partial<Record<HeatMarkKind, string>> = {
  'bag off': 'bag off',
  'wiped and dried': 'wipe, dry',
  'compound or grease on': 'grease',
  'over the hole, square': 'over',
  enters: 'let in',
}
