import type { OperationTimeView } from '@/api/generated'

/** Where planned hours come from. */
export function sourceWords(one: Pick<OperationTimeView, 'learned_from' | 'middle_h'>): string {
  if (one.middle_h === 0) return 'waiting, no work'
  return one.learned_from > 0 ? `own log, ${one.learned_from}` : 'common practice'
}
