/**
 * Lengths as the bench reads them: small lengths in thou or µm, sizes in inch or mm with them.
 * A shown number never stands on another side of a limit than the value itself.
 */
export type SmallUnit = 'thou' | 'µm'
export type SizeUnit = 'inch' | 'mm'

export const SIZE_WITH: Record<SmallUnit, SizeUnit> = { thou: 'inch', µm: 'mm' }
const METRES: Record<SmallUnit | SizeUnit, number> = { thou: 25.4e-6, µm: 1e-6, inch: 25.4e-3, mm: 1e-3 }
const DIGITS: Record<SmallUnit | SizeUnit, number> = { thou: 1, µm: 0, inch: 4, mm: 3 }
/** Float noise of limits and sums is far below a picometre: that is no crossing. */
const NOISE = 1e-13
const MOST_EXTRA_DIGITS = 3
/** From here on an uncertainty is no small length any more. [m] */
const COARSE = 0.2e-3

export interface Shown {
  signed?: boolean
  digits?: number
  limits?: readonly (number | null | undefined)[]
}

/** A length [m] as a number in a unit, without the unit. */
export function lengthText(metres: number, unit: SmallUnit | SizeUnit, shown: Shown = {}): string {
  const digits = shown.digits ?? DIGITS[unit]
  const limits = (shown.limits ?? []).filter((limit): limit is number => typeof limit === 'number')
  let text = ''
  for (let extra = 0; extra <= MOST_EXTRA_DIGITS; extra++) {
    text = rounded(metres / METRES[unit], digits + extra)
    const asShown = Number(text) * METRES[unit]
    if (limits.every((limit) => sameSide(metres, asShown, limit))) break
  }
  if (Number(text) === 0) return text.replace('-', '')
  return text.replace('-', '−').replace(/^(?=\d)/, shown.signed ? '+' : '')
}

/** Rounds half away from zero after the noise of binary fractions is taken off. */
function rounded(value: number, digits: number): string {
  const scale = 10 ** digits
  const size = Math.floor(Math.abs(value) * scale + 0.5 + 1e-7) / scale
  return (value < 0 ? -size : size).toFixed(digits)
}

function sameSide(exact: number, shown: number, limit: number): boolean {
  const from = exact - limit
  if (Math.abs(from) < NOISE) return true
  const seen = shown - limit
  return from < 0 ? seen < -NOISE : seen > NOISE
}

/**
 * As many decimals as a gauge of this step [m] supports: more would claim what it cannot show, fewer would hide what
 * a fine one does show.
 */
export function digitsFor(step: number, unit: SmallUnit | SizeUnit): number {
  if (!(step > 0)) return DIGITS[unit]
  const steps = step / METRES[unit]
  const most = DIGITS[unit] + (steps <= 0.5 * 10 ** -DIGITS[unit] ? 1 : 0)
  return Math.min(most, Math.max(0, Math.ceil(-Math.log10(steps) - 1e-9)))
}

/** A small length with as many digits as it has: a graduation, a pass, a reading. */
export function exactSmall(metres: number, unit: SmallUnit, shown: Shown = {}): string {
  const um = metres * 1e6
  const whole = Math.abs(um - Math.round(um)) < 0.05
  return lengthText(metres, unit, { digits: unit === 'thou' || !whole ? 1 : 0, ...shown })
}

/** A small length with its unit and uncertainty: +3.6 ±0.3 thou. */
export function smallText(
  metres: number,
  expanded: number | null,
  unit: SmallUnit,
  shown: Shown = {},
): string {
  const number = lengthText(metres, unit, { signed: true, ...shown })
  return expanded === null ? `${number} ${unit}` : `${number} ±${uncertaintyText(expanded, unit)} ${unit}`
}

/** An expanded uncertainty [m], rounded up: it must never look smaller than it is. */
export function uncertaintyText(expanded: number, unit: SmallUnit | SizeUnit, digits = DIGITS[unit]): string {
  const scale = 10 ** digits
  return (Math.ceil((expanded / METRES[unit]) * scale - 1e-6) / scale).toFixed(digits)
}

/** An expanded uncertainty [m] with its sign and unit: two digits, rounded up, in mm or inch where it is that coarse. */
export function withinText(expanded: number, unit: SmallUnit): string {
  const shown = expanded < COARSE ? unit : SIZE_WITH[unit]
  const value = expanded / METRES[shown]
  const digits = Math.min(4, Math.max(0, value > 0 ? 1 - Math.floor(Math.log10(value)) : 0))
  const scale = 10 ** digits
  return `±${(Math.ceil(value * scale - 1e-6) / scale).toFixed(digits)} ${shown}`
}

/** A size with its unit, and its uncertainty where it has one: 8.900 ±0.004 mm. */
export function sizeText(
  metres: number,
  unit: SmallUnit,
  expanded: number | null = null,
  shown: Shown = {},
): string {
  const size = SIZE_WITH[unit]
  const within = expanded === null ? '' : ` ±${uncertaintyText(expanded, size, shown.digits)}`
  return `${lengthText(metres, size, shown)}${within} ${size}`
}

/** A size in both units, where it matters: 8.900 mm (0.3504 inch). */
export function bothSizes(metres: number, unit: SmallUnit, shown: Shown = {}): string {
  return `${sizeText(metres, unit, null, shown)} (${sizeText(metres, otherSmall(unit))})`
}

/** The same length in the other unit. */
export function otherSmall(unit: SmallUnit): SmallUnit {
  return unit === 'thou' ? 'µm' : 'thou'
}

/** Typed text with the unit a bare number takes, as kept with a reading. */
export function asTyped(typed: string, unit: string): string {
  const [number, side] = perSide(typed)
  if (/[a-zµ"]/i.test(number)) return typed
  return `${number} ${unit === '0.01 mm' ? '× 0.01 mm' : unit}${side}`
}

/** A length told per side: its number, and that it was; the application doubles it on a diameter. */
export function perSide(typed: string): [string, string] {
  const said = /^(.*?)\s*(?:\b(?:per|a|each)\s+side|\/\s*side)\s*$/i.exec(typed)
  return said ? [said[1] ?? '', ' per side'] : [typed, '']
}
