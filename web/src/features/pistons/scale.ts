/** Where clearances lie on the strip of one hole: a common scale for the whole sheet. */
import type { MatchRowView } from '@/api/generated'

export interface Scale {
  x: (metres: number) => number
  from: number
  to: number
}

/** Least and greatest of everything shown, a margin round it; 0 to 100. */
export function scaleOf(rows: readonly MatchRowView[]): Scale {
  const all: number[] = []
  for (const row of rows) {
    for (const limit of [row.least_m, row.greatest_m]) if (limit !== null) all.push(limit)
    for (const one of [row.by_sizes, row.by_feeler])
      if (one)
        all.push(one.stated.value_m - one.stated.expanded_m, one.stated.value_m + one.stated.expanded_m)
  }
  const [low, high] = all.length ? [Math.min(...all), Math.max(...all)] : [0, 1e-4]
  const margin = Math.max((high - low) * 0.12, 2e-6)
  const [from, to] = [low - margin, high + margin]
  return { from, to, x: (metres) => ((metres - from) / (to - from)) * 100 }
}
