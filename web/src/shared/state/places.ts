/** The order in which a part is read, and moving in it: forward, back, and across a grid. */
import type { PlaceReadView, PlaceView, SurveyFormView } from '@/api/generated'

export function placeKey(place: PlaceView): string {
  const { hour, level_um, axis_deg, along_um, across_um } = place
  return [hour, level_um, axis_deg, along_um, across_um]
    .map((one) => (one === null || one === undefined ? '' : String(Number(one))))
    .join('·')
}

const isDone = (row: PlaceReadView, waiting: readonly string[]) =>
  row.readings.length > 0 || row.unreadable !== '' || waiting.includes(placeKey(row.place))

/** Places of the pattern that are still to be read, in the order of the hand. */
export function missingPlaces(survey: SurveyFormView, waiting: readonly string[] = []): PlaceReadView[] {
  return survey.places.filter((row) => row.on_pattern && !isDone(row, waiting))
}

/** The next missing place after one, coming round again to what was left out; null when nothing is missing. */
export function nextPlace(survey: SurveyFormView, after: string | null, waiting: readonly string[] = []) {
  const keys = survey.places.map((row) => placeKey(row.place))
  const missing = new Set(missingPlaces(survey, waiting).map((row) => placeKey(row.place)))
  const at = after === null ? -1 : keys.indexOf(after)
  const turned = [...keys.slice(at + 1), ...keys.slice(0, at + 1)]
  return turned.find((key) => missing.has(key)) ?? null
}

/** One place on or back, whether it is missing or not. */
export function stepPlace(survey: SurveyFormView, from: string | null, step: 1 | -1): string | null {
  const keys = survey.places.map((row) => placeKey(row.place))
  if (keys.length === 0) return null
  const at = from === null ? (step > 0 ? -1 : 0) : keys.indexOf(from)
  return keys[(at + step + keys.length) % keys.length] ?? null
}

export type Way = 'left' | 'right' | 'up' | 'down'

/** The neighbour of a grid point, or the level and axis beside one; itself at the edge. */
export function movePlace(survey: SurveyFormView, from: string | null, way: Way): string | null {
  const here = survey.places.find((row) => placeKey(row.place) === from) ?? survey.places[0]
  if (!here) return null
  const isGrid = here.place.along_um !== null && here.place.along_um !== undefined
  const isClock = here.place.axis_deg == null && here.place.hour != null
  const column = isGrid ? 'along_um' : isClock ? 'hour' : 'axis_deg'
  const row = isGrid ? 'across_um' : 'level_um'
  const moving = way === 'left' || way === 'right' ? column : row
  const still = moving === column ? row : column
  const value = (one: PlaceReadView, name: typeof row | typeof column) => Number(one.place[name] ?? 0)
  const line = survey.places
    .filter((one) => value(one, still) === value(here, still))
    .sort((a, b) => value(a, moving) - value(b, moving))
  const at = line.indexOf(here)
  const next = line[at + (way === 'right' || way === 'down' ? 1 : -1)] ?? here
  return placeKey(next.place)
}
