/** What stands on each hole of the deck: its ring, a number and its state, whatever the lens. */
import type { BlockView, BoresView, BoreView, FitOnDeck, FitsView, HoleView, State } from '@/api/generated'
import { meanDepth, type Preview, type Ring, type RingMark, ringOf } from '@/shared/charts/rings'
import type { ClockLens } from '@/shared/subjects'

export interface Face {
  number: number
  ring: Ring
  /** The number in large, in words of its unit. */
  value: string
  state: State
  /** Said in place of the state where the lens does not judge. */
  words: string
}

interface Texts {
  small: (metres: number, limits: (number | null)[]) => string
  size: (metres: number) => string
}

export function clockFaces(block: BlockView, lens: ClockLens, preview: Preview | null, texts: Texts): Face[] {
  return block.holes.map((hole) => ({
    number: hole.number,
    ring: ringOf(hole, lens, preview),
    value: lens === 'protrusion' ? protrusionText(hole, texts) : depthText(hole, texts),
    state: hole.state,
    words: lens === 'protrusion' ? '' : depthWords(hole),
  }))
}

function protrusionText(hole: HoleView, texts: Texts): string {
  return hole.mean_m === null ? '–' : texts.small(hole.mean_m, [hole.least_m, hole.greatest_m])
}

function depthText(hole: HoleView, texts: Texts): string {
  const depth = meanDepth(hole)
  return depth === null ? '–' : texts.size(depth)
}

function depthWords(hole: HoleView): string {
  const read = hole.parts.ledge_depths.length
  return read ? `${read} read` : 'not read'
}

/** Clock positions of the two ends of an axis, which counts clockwise from the front at 9 h. [h] */
export function endsOf(axis_deg: number): [number, number] {
  const hour = (9 + axis_deg / 30) % 12 || 12
  return [hour, (hour + 6) % 12 || 12]
}

export interface BorePreview {
  hole: number
  level_um: string
  axis: number
  value: number
}

/** The diameters of one level as they lie: each at both ends of its axis, limits and values from the nominal. */
export function boreRing(bore: BoreView, level_um: string, preview: BorePreview | null): Ring {
  const { survey } = bore
  const from = survey.nominal_m ?? 0
  const off = (limit: number | null) => (limit === null ? null : limit - from)
  const marks: RingMark[] = []
  for (const row of survey.places) {
    const { level_um: at, axis_deg } = row.place
    const value = row.value_m ?? row.past_m
    if (value === null || axis_deg === null || axis_deg === undefined) continue
    if (Number(at) !== Number(level_um)) continue
    const state = row.value_m === null ? 'read again' : row.doubtful ? 'cannot tell' : (row.state ?? 'in')
    for (const hour of endsOf(axis_deg)) marks.push({ hour, value: value - from, state })
  }
  if (preview?.hole === bore.hole && Number(preview.level_um) === Number(level_um))
    for (const hour of endsOf(preview.axis))
      marks.push({ hour, value: preview.value - from, state: 'not measured', preview: true })
  return { least: off(survey.least_m), greatest: off(survey.greatest_m), marks, expected: null }
}

/** Without a limit nothing is in: it is read. */
export const isOnlyRead = ({ survey }: BoreView) => survey.part.state === 'in' && survey.rules.length === 0

function wordsOf(bore: BoreView): string {
  if (!bore.survey.part.can_read) return 'no liner'
  return isOnlyRead(bore) ? 'read, no limit' : ''
}

export function boreFaces(
  bores: BoresView,
  level: { depth_um: string; depth_m: number } | null,
  preview: BorePreview | null,
  text: (bore: BoreView, mean_m: number) => string,
): Face[] {
  return bores.bores.map((bore) => {
    const form = bore.survey.form?.levels.find((one) => level && Math.abs(one.depth_m - level.depth_m) < 1e-9)
    const { state } = bore.survey.part
    return {
      number: bore.hole,
      ring: boreRing(bore, level?.depth_um ?? '', preview),
      value: form?.mean_m == null ? '–' : text(bore, form.mean_m),
      state,
      words: wordsOf(bore),
    }
  })
}

/** The press of each hole at the level that decides, every axis at both of its ends. */
export function fitFaces(fits: FitsView, text: (fit: FitOnDeck) => string): Face[] {
  return fits.fits.map((fit) => ({
    number: fit.hole,
    ring: {
      least: fit.least_m,
      greatest: fit.greatest_m,
      marks: fit.places.flatMap((place) =>
        endsOf(place.axis_deg).map((hour) => ({ hour, value: place.press.value_m, state: place.state })),
      ),
      expected: null,
    },
    value: text(fit),
    state: fit.state,
    words: fit.liner === null ? 'no liner' : '',
  }))
}
