/** What is written beside the section of a hole: one line for each part of the conversion that its card has. */
import type { DeckingView, HoleConversionView, RuleView, State } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { lengthText, SIZE_WITH, type SmallUnit, uncertaintyText } from '@/shared/format/lengths'

/** A direction found, to the half hour that it can be told by. */
const nearHour = (hour: number) => {
  const half = Math.round(hour * 2) / 2
  return half < 1 ? half + 12 : half
}

export interface PartLabel {
  part: 'ring' | 'proud' | 'insert' | 'register' | 'seals' | 'relief'
  what: string
  /** Its head in the table of all holes. */
  short: string
  value: string
  note: string
  /** None where it is work to do and no verdict. */
  state: State | null
}

const small = (rule: RuleView, unit: SmallUnit, signed = false) =>
  `${lengthText(rule.value_m, unit, { signed, limits: [rule.least_m, rule.greatest_m] })} ±${uncertaintyText(rule.expanded_m, unit)}`

const SHORT: Record<Exclude<PartLabel['part'], 'seals'>, string> = {
  ring: 'crush',
  proud: 'proud',
  insert: 'insert',
  register: 'off line',
  relief: 'relief',
}

export function windowText(least: number | null, greatest: number | null, unit: SmallUnit): string {
  if (least !== null && greatest !== null)
    return `${lengthText(least, unit)} to ${lengthText(greatest, unit)}`
  if (greatest !== null) return `at most ${lengthText(greatest, unit)}`
  return least === null ? 'no limit on the card' : `at least ${lengthText(least, unit)}`
}
const limits = (rule: RuleView, unit: SmallUnit) => windowText(rule.least_m, rule.greatest_m, unit)

export function labelsOf(one: HoleConversionView, decking: DeckingView | null, unit: SmallUnit): PartLabel[] {
  const found: PartLabel[] = []
  const add = (part: PartLabel['part'], what: string, value: string, note: string, state: State | null) =>
    found.push({
      part,
      what,
      short: part === 'seals' ? what.replace('Seal, ', '') : SHORT[part],
      value,
      note,
      state,
    })
  if (one.ring) {
    const crush = one.ring.crush
    if (crush)
      add(
        'ring',
        'Fire ring crushed',
        one.ring.height_m === 0 ? lengthText(crush.value_m, unit) : small(crush, unit),
        `${limits(crush, unit)}; ${one.ring.known_by}`,
        crush.state,
      )
    else add('ring', 'Fire ring crushed', 'not known', 'why stands beside', 'not measured')
  }
  if (one.proud) {
    const highest = one.proud.rules[1]
    if (highest)
      add(
        'proud',
        'Stands proud',
        small(highest, unit),
        `${limits(highest, unit)}; ${one.proud.reason}`,
        one.proud.state,
      )
    else add('proud', 'Stands proud', 'not read', one.proud.reason, one.proud.state)
  }
  if (one.insert) {
    const levels = one.insert.levels
    const worst = levels.find((level) => level.state === one.insert?.state) ?? levels[0]
    if (worst)
      add('insert', 'Deck insert presses', small(worst, unit, true), limits(worst, unit), one.insert.state)
    else
      add('insert', 'Deck insert presses', 'not measured', 'pocket and ring are to be read', 'not measured')
  }
  if (one.register_line) {
    const rule = one.register_line.rule
    const hour = one.register_line.hour
    if (rule)
      add(
        'register',
        'Registers off line',
        small(rule, unit),
        `${limits(rule, unit)}; ${hour === null ? 'no direction stands out' : `towards ${hourText(nearHour(hour))}`}`,
        one.register_line.state,
      )
    else add('register', 'Registers off line', 'not swept', 'four clock positions', 'not measured')
  }
  for (const seal of one.seals)
    add(
      'seals',
      `Seal, ${seal.name}`,
      seal.squeeze === null ? 'not known' : `squeezed ${Math.round(seal.squeeze * 100)} %`,
      seal.against.length ? seal.against.join('; ') : `${seal.material}, ${seal.grease}`,
      seal.squeeze === null ? 'not measured' : seal.against.length ? 'cannot tell' : 'in',
    )
  if (one.relief) add('relief', 'Relief at the foot', ...reliefText(one, unit))
  return decking?.decked_at ? found.filter((label) => label.part !== 'proud') : found
}

function reliefText(one: HoleConversionView, unit: SmallUnit): [string, string, State | null] {
  const relief = one.relief
  if (!relief?.towards || !relief.away) return ['not known', 'why stands beside', 'not measured']
  const size = (metres: number) => lengthText(metres, SIZE_WITH[unit], { digits: unit === 'thou' ? 3 : 2 })
  const sides = [
    {
      side: relief.towards,
      name: relief.towards_hour === null ? 'on the offset side' : `at ${hourText(relief.towards_hour)}`,
    },
    { side: relief.away, name: 'on the other side' },
  ]
  const needed = sides.filter((row) => row.side.deep_m > 0)
  if (!needed.length)
    return [
      'none',
      `the rod clears it by ${size(Math.min(...sides.map((row) => row.side.clear_m)))} ${SIZE_WITH[unit]}`,
      'in',
    ]
  return [
    `${needed.map((row) => `${size(row.side.deep_m)} deep, ${size(row.side.high_m)} high`).join('; ')}`,
    `${SIZE_WITH[unit]}, ${needed.map((row) => row.name).join(' and ')}${needed.length === 1 ? ' only' : ''}`,
    null,
  ]
}
