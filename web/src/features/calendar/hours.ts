/** Hours of a day as they are typed: "8:00-12:00, 13-17". */
export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const

const clock = (minutes: number) => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`

export const spanWords = (day: readonly (readonly number[])[]) =>
  day.map((span) => `${clock(span[0] ?? 0)}-${clock(span[1] ?? 0)}`).join(', ')

function minutes(text: string): number {
  const found = /^(\d{1,2})(?:[:.](\d{2}))?$/.exec(text.trim())
  return found ? Number(found[1]) * 60 + Number(found[2] ?? 0) : Number.NaN
}

type Day = [number, number][]
export type Week = [Day, Day, Day, Day, Day, Day, Day]
/** Seven days as they are typed, Monday first. */
export function weekOf(texts: readonly string[]): Week {
  const [mon, tue, wed, thu, fri, sat, sun] = texts
  return [
    spansOf(mon ?? ''),
    spansOf(tue ?? ''),
    spansOf(wed ?? ''),
    spansOf(thu ?? ''),
    spansOf(fri ?? ''),
    spansOf(sat ?? ''),
    spansOf(sun ?? ''),
  ]
}

/** Spans in minutes; what cannot be read is sent as a span that ends before it begins, and comes back refused. */
export function spansOf(text: string): [number, number][] {
  const parts = text
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter(Boolean)
  return parts.map((part): [number, number] => {
    const [from, until, more] = part.split(/[-–]/).map(minutes)
    const known = (one: number | undefined): one is number => one !== undefined && one <= 1440
    return known(from) && known(until) && more === undefined ? [from, until] : [1, 0]
  })
}
