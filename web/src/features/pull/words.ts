/** Words of a pull: forces, clocks, and what the two people do next. */
import type { PullView } from '@/api/generated'

export function forceText(newtons: number): string {
  const kn = newtons / 1000
  if (kn < 0.005) return '0'
  return kn >= 9.95 ? kn.toFixed(0) : kn.toFixed(kn >= 0.995 ? 1 : 2)
}

export function clockText(seconds: number): string {
  const minutes = Math.floor(seconds / 60)
  if (minutes >= 60) return `${Math.floor(minutes / 60)} h ${minutes % 60} min`
  return `${minutes} min ${Math.floor(seconds % 60)} s`
}

/** What the one at the handle does. */
export function crankWords(toGo_m: number): string {
  const mm = toGo_m * 1000
  if (mm <= 1) return 'Stop. Hands off.'
  if (mm <= 20) return 'Quarter turns, wait after each.'
  if (mm <= 40) return 'Slow, half turns.'
  return 'Even turns, no jerk. Slow from 40, quarters from 20.'
}

/** What the one who watches calls, and looks at. */
export function watchWords(pull: PullView): string {
  if (pull.call_at_m === null) return 'Call “stop”.'
  const left = pull.to_go_m - pull.call_at_m
  const turns = pull.turn_m ? Math.ceil(left / pull.turn_m - 1e-9) : null
  const when =
    turns === null ? `${Math.round(left * 1000)} mm on` : `in ${turns} turn${turns === 1 ? '' : 's'}`
  return `Call “${pull.call}” ${when}. Look: is the gap even all round?`
}
