/** A dial needle counted: whole turns with their sign, and what it shows beyond them. */
export interface Needle {
  /** Graduations of one turn. */
  turn: number
  turns: number
  shows: number
}

/** What was counted, in graduations: turns to the minus side are counted down from nought. */
export function counted({ turn, turns, shows }: Needle): number {
  return Math.round((turns * turn + shows) * 1e6) / 1e6
}

/** Said back as the eye followed it: past 10, 20, 21. */
export function playedBack(needle: Needle, step: number): string {
  const end = counted(needle)
  const way = Math.sign(end)
  const passed = []
  for (let at = step; at < Math.abs(end); at += step) passed.push(way * at)
  return [...passed, end].join(', ')
}
