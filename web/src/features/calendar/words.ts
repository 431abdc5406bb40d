/** What the calendar says in words. */
import type { CalendarBarView, CalendarJobView, CalendarView } from '@/api/generated'

/** A day as it is said: Thu 3 Dec. */
export function dayWords(moment: string | null | undefined): string {
  if (!moment) return ''
  const date = new Date(`${moment.slice(0, 10)}T00:00:00Z`)
  return date
    .toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })
    .replace(',', '')
}
export const clockWords = (moment: string) => moment.slice(11, 16)
export const momentWords = (moment: string) => `${dayWords(moment)} ${clockWords(moment)}`

export const percent = (share: number) => `${Math.round(100 * share)} %`

/** The one sentence above the calendar: how many promises hold, and which does not. */
export function headline(view: CalendarView): { first: string; rest: string } {
  const promised = view.jobs.filter((job) => job.promised !== null)
  const late = promised.filter((job) => job.holds === false)
  if (promised.length === 0)
    return { first: 'Nothing is promised yet.', rest: 'A date to offer stands beside each job.' }
  const held = promised.length - late.length
  const first =
    late.length === 0
      ? `${promised.length === 1 ? 'The promise holds' : `All ${promised.length} promises hold`}.`
      : `${held} of ${promised.length} promises hold.`
  const worst = [...late].sort((a, b) => b.late_days - a.late_days)[0]
  const rest = worst
    ? `${worst.name}: ready ${dayWords(worst.ready)}, promised ${dayWords(worst.promised)}.`
    : ''
  return { first, rest }
}

/** Holes in few words: none where all of them are meant, a row of them from its first to its last. */
export function holesWords(holes: readonly number[], all = 0): string {
  const [first, last] = [holes[0], holes.at(-1)]
  if (first === undefined || last === undefined || (all > 1 && holes.length === all)) return ''
  const row = holes.length > 2 && last - first === holes.length - 1
  return row ? ` ${first}–${last}` : ` ${holes.join(', ')}`
}
export const barWords = (bar: CalendarBarView) => `${bar.title}${holesWords(bar.holes)}`

/** The first letter of a name, two where two names share it. */
export function initials(people: readonly string[]): Map<string, string> {
  return new Map(
    people.map((name) => {
      const alike = people.filter((one) => one[0] === name[0]).length > 1
      return [name, name.slice(0, alike ? 2 : 1)]
    }),
  )
}

/** Hours laid out for a person in each of the weeks that begin at those days. [h] */
export function hoursByWeek(
  jobs: readonly CalendarJobView[],
  person: string,
  mondays: readonly string[],
): number[] {
  const own = jobs.flatMap((job) => job.bars).filter((bar) => bar.person === person)
  return mondays.map((monday, at) => {
    const next = mondays[at + 1] ?? '9999'
    return own
      .filter((bar) => bar.start.slice(0, 10) >= monday && bar.start.slice(0, 10) < next)
      .reduce((sum, bar) => sum + bar.hours, 0)
  })
}
