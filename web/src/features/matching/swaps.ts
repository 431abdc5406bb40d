/** What the swap table says in words. */
import type { ExchangeView, SwapsView } from '@/api/generated'

export function putWords(one: ExchangeView): string {
  const [first, second] = one.puts
  if (!first) return ''
  return second
    ? `${first.liner} into ${first.hole}, ${second.liner} into ${second.hole}`
    : `${first.liner} from the bench into ${first.hole}`
}

export function swapHeadline(
  view: Pick<SwapsView, 'groups' | 'holes' | 'liners' | 'freedom' | 'fittings'>,
): string {
  if (view.groups === view.fittings.length)
    return 'Each liner was read in one hole only: nothing tells hole from liner yet'
  const odd = view.fittings.filter((one) => !one.fits).length
  if (odd) return `Hole and liner together do not explain ${odd === 1 ? 'one reading' : `${odd} readings`}`
  const groups = view.groups === 1 ? '' : `, in ${view.groups} groups that nothing ties together`
  const sure = view.freedom
    ? `${view.freedom} reading${view.freedom === 1 ? '' : 's'} more than it takes`
    : 'just as many readings as it takes'
  return `Holes told from liners by ${sure}${groups}`
}
