/** What the causes say in words. */
import type { CausesView, ExplainedView } from '@/api/generated'

const SCATTER = 'nothing but scatter'

export const holesText = (where: readonly number[]) =>
  where.length === 0 ? '' : where.length === 1 ? `hole ${where[0]}` : `holes ${where.join(', ')}`

export const capital = (text: string) => text.replace(/^./, (letter) => letter.toUpperCase())

export function headline(view: CausesView, small: (metres: number) => string): string {
  const off = view.holes.filter((one) => !one.adds_up)
  const bores = view.matter === 'bores'
  if (!view.explained.length)
    return bores
      ? 'Every bore is as round and straight as a sound one'
      : 'Everything adds up: what is read is what the parts say'
  if (!off.length) return 'No hole by itself, but all together are off from what they ought to be'
  const name = capital(holesText(off.map((one) => one.hole)))
  const one = off.length === 1
  if (bores) return `${name} ${one ? 'is' : 'are'} not round and straight`
  const middle = off.reduce((sum, each) => sum + (each.middle?.value_m ?? 0), 0) / off.length
  const way = middle < 0 ? 'lower' : 'higher'
  return `${name} ${one ? 'stands' : 'stand'} ${small(Math.abs(middle))} ${way} than ${one ? 'its' : 'their'} parts say`
}

export const nameOf = (one: ExplainedView) => one.causes.join(' and ')

export const isScatter = (one: ExplainedView) => one.causes[0] === SCATTER

export const share = (weight: number) =>
  weight < 0.005 ? (weight > 0.00005 ? '<0.01' : '0') : weight.toFixed(2)

/** Where and by how much an explanation acts: its effects, their high side by the clock, the place of a spot. */
export function effectText(one: ExplainedView, small: (metres: number) => string, bores: boolean): string {
  if (isScatter(one)) return ''
  return one.causes
    .map((_, at) => {
      const side = one.high_sides_deg[at]
      const high = side === null || side === undefined || bores ? '' : `, high at ${hourText(side)}`
      const word = one.words[at] ? `, ${one.words[at]}` : ''
      return `${small(one.effects_m[at] ?? 0)}${high} ${placeText(one.where[at] ?? [])}${word}`
    })
    .join('; ')
}

const placeText = (where: readonly number[]) => (where.length ? `in ${holesText(where)}` : '')

/** The nearest hour of an angle counted clockwise from 9 h. */
export const hourText = (angle: number) => `${(Math.round(angle / 30) + 9) % 12 || 12} h`
