/** Sentences of the route. */
import type { OperationView, RouteView, SchoolChangeView } from '@/api/generated'

/** What a change of school changes, a line each; said so where it is nothing. */
export function changeWords(change: SchoolChangeView): string[] {
  const lines = [
    change.added.length ? `comes: ${change.added.join(', ')}` : '',
    change.removed.length ? `goes: ${change.removed.join(', ')}` : '',
    change.moved.length ? `stands elsewhere: ${change.moved.join(', ')}` : '',
    change.hours ? `${change.hours > 0 ? 'more' : 'less'} by ${Math.abs(change.hours).toFixed(1)} h` : '',
    ...change.holds,
  ].filter(Boolean)
  return lines.length ? lines : ['The route stays as it is; plans and wording follow.']
}

/** What keeps the work from going on, in one sentence; empty where nothing does. */
export function blockedWords(route: RouteView): string {
  const waits = route.waits.filter((wait) => wait.ended === null)
  return waits.map((wait) => wait.words).join(' · ')
}

/** What an operation asks for next: its holes, or what is missing. */
export function nextWords(one: OperationView): string {
  const open = one.holes.filter((hole) => hole.state !== 'in').map((hole) => hole.hole)
  const where = open.length === 0 ? '' : ` of hole${open.length > 1 ? 's' : ''} ${open.join(', ')}`
  return `${one.title}${where}`
}
