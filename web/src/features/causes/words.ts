/** What the causes say in words. */
import type { CausesView, ExplainedView } from '@/api/generated'

export const holesText = (where: readonly number[]) =>
  where.length === 0 ? '' : where.length === 1 ? `hole ${where[0]}` : `holes ${where.join(', ')}`

export function headline(view: CausesView, small: (metres: number) => string): string {
  const off = view.holes.filter((one) => !one.adds_up)
  if (!view.explained.length) return 'Everything adds up: what is read is what the parts say'
  if (!off.length) return 'No hole by itself, but all together are off from what their parts say'
  const middle = off.reduce((sum, one) => sum + one.residual.value_m, 0) / off.length
  const stands = off.length === 1 ? 'stands' : 'stand'
  const way = middle < 0 ? 'lower' : 'higher'
  const name = holesText(off.map((one) => one.hole))
  return `${name.replace(/^./, (c) => c.toUpperCase())} ${stands} ${small(Math.abs(middle))} ${way} than ${off.length === 1 ? 'its' : 'their'} parts say`
}

export const nameOf = (one: ExplainedView) => one.causes.join(' and ')

export const share = (weight: number) => (weight < 0.005 ? (weight > 0 ? '<0.01' : '0') : weight.toFixed(2))
