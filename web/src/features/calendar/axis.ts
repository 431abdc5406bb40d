/** Where a moment lies on the calendar's axis: open days are wide, shut ones narrow; hours run within a day. */
import type { CalendarView } from '@/api/generated'

export interface DayColumn {
  day: string
  x: number
  width: number
  open: boolean
}

export interface Axis {
  days: DayColumn[]
  left: number
  right: number
  /** Along the axis; before its begin and after its end it stays at the edge. */
  x: (moment: string) => number
  holds: (moment: string) => boolean
}

const DAY_MS = 86_400_000
const SHUT = 0.3
export const WEEKS = 5

export const dayOf = (moment: string) => moment.slice(0, 10)
const minutesOf = (moment: string) => Number(moment.slice(11, 13)) * 60 + Number(moment.slice(14, 16))

function plusDays(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10)
}
const weekday = (day: string) => (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7

/** The Monday of the week before the one of a moment. */
export function firstDay(moment: string, weeksOn = 0): string {
  const day = dayOf(moment)
  return plusDays(day, -weekday(day) - 7 + 7 * weeksOn)
}

export function axisOf(
  view: Pick<CalendarView, 'at' | 'open_days' | 'day_from_min' | 'day_until_min'>,
  left: number,
  right: number,
  weeksOn = 0,
): Axis {
  const first = firstDay(view.at, weeksOn)
  const open = new Set(view.open_days)
  const last = view.open_days.at(-1) ?? dayOf(view.at)
  const all = Array.from({ length: WEEKS * 7 }, (_, at) => plusDays(first, at))
  // What lies before now or beyond what was laid out is known by its weekday only.
  const isOpen = (day: string) =>
    day > dayOf(view.at) && day <= last ? open.has(day) : open.has(day) || weekday(day) < 5
  const shares = all.map((day) => (isOpen(day) ? 1 : SHUT))
  const unit = (right - left) / shares.reduce((sum, share) => sum + share, 0)
  let at = left
  const days = all.map((day, place): DayColumn => {
    const width = (shares[place] as number) * unit
    const column = { day, x: at, width, open: isOpen(day) }
    at += width
    return column
  })
  const columns = new Map(days.map((one) => [one.day, one]))
  const span = Math.max(view.day_until_min - view.day_from_min, 1)
  const x = (moment: string) => {
    const day = dayOf(moment)
    const column = columns.get(day)
    if (!column) return day < first ? left : right
    const within = moment.length > 10 ? (minutesOf(moment) - view.day_from_min) / span : 1
    return column.x + column.width * Math.min(Math.max(within, 0), 1)
  }
  return { days, left, right, x, holds: (moment) => columns.has(dayOf(moment)) }
}

export interface Label {
  text: string
  x: number
  tone: string
}
export interface PlacedLabel extends Label {
  level: number
  from: number
}

/** Labels over a rule: beside each other where there is room, else one line higher, else left out. */
export function placeLabels(labels: readonly Label[], charWidth: number, levels = 2): PlacedLabel[] {
  const until = Array.from({ length: levels }, () => -Infinity)
  const placed: PlacedLabel[] = []
  for (const label of [...labels].sort((a, b) => a.x - b.x)) {
    const width = label.text.length * charWidth
    const from = label.x
    const level = until.findIndex((end) => from >= end)
    if (level < 0) continue
    until[level] = from + width + charWidth
    placed.push({ ...label, level, from })
  }
  return placed
}
