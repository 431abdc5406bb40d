/** What a matching says in words: its headline, its moves, what each goal came to. */
import type { GoalView, MatchingView, MoveView, TrayStepView } from '@/api/generated'
import { lengthText, type SmallUnit } from '@/shared/format/lengths'

const COUNT = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'] as const
const many = (count: number, one: string) => `${COUNT[count] ?? count} ${one}${count === 1 ? '' : 's'}`
const named = (holes: number[]) => `hole${holes.length > 1 ? 's' : ''} ${holes.join(', ')}`

export function headline(view: Pick<MatchingView, 'holes' | 'moves' | 'by_exchange' | 'of'>): string {
  const of = (state: string) => view.holes.filter((one) => one.state === state).map((one) => one.hole)
  const [outside, unsure] = [of('out'), of('cannot tell')]
  const cut = view.holes.filter((one) => one.shim_m !== null).length
  if (outside.length) return `No exchange puts all in: ${named(outside)} would stay outside.`
  if (unsure.length) return `Nothing is proven outside, but ${named(unsure)} cannot be told.`
  const moves = view.moves.length ? many(view.moves.length, 'move') : ''
  if (cut) {
    const shims = `${many(cut, 'shim')} ${cut === 1 ? 'is' : 'are'} needed`
    return view.by_exchange
      ? `No exchange puts all in: ${shims}.`
      : `All in: ${shims}${moves && `, ${moves}`}.`
  }
  const honed = view.of === 'press' ? ', the least honing' : ''
  return moves
    ? `${moves.replace(/^./, (c) => c.toUpperCase())} put all in${honed}.`
    : `All are in as they are${honed}.`
}

export function moveWords(move: MoveView): string {
  const from = move.from_hole === null ? 'from the bench' : `out of ${move.from_hole}`
  return move.to_hole === null
    ? `${move.liner} ${from}, to the bench`
    : `${move.liner} ${from}, into hole ${move.to_hole}`
}

/** What is done to the block, as one sentence. */
export function needWords(view: Pick<MatchingView, 'holes' | 'moves'>): string {
  const into = view.moves
    .filter((one) => one.to_hole !== null)
    .map((one) => `${one.liner} into ${one.to_hole}`)
  const cut = view.holes.filter((one) => one.shim_m !== null).map((one) => one.hole)
  const parts = [into.join(', '), cut.length ? `cut and shim ${cut.join(', ')}` : ''].filter(Boolean)
  return parts.length ? parts.join('; ') : 'Every liner stays where it is'
}

export function stepWords(step: Pick<TrayStepView, 'kind' | 'liner' | 'hole'>): string {
  const { kind, liner, hole } = step
  if (kind === 'draw') return `Draw ${liner} out of hole ${hole}`
  if (kind === 'cut') return `Cut hole ${hole} for ${liner} on its shim`
  return kind === 'fit' ? `Fit ${liner} into hole ${hole}` : `Read hole ${hole}`
}

export function reachedText(goal: GoalView, unit: SmallUnit): string {
  if (goal.goal === 'price of the shims') return (goal.then / 100).toFixed(2)
  return goal.is_length ? `${lengthText(goal.then, unit)} ${unit}` : String(goal.then)
}
