/** Temperatures and torques in both of their units: shops read either. */

/** A temperature kept in °C: 21.5 °C (71 °F). */
export function warmthText(celsius: number | string): string {
  const value = Number(celsius)
  return `${value} °C (${Math.round((value * 9) / 5 + 32)} °F)`
}

/** 1 lbf·ft = 1.3558179483 N·m: the pound-force is 4.4482216152605 N, the foot 0.3048 m, both exact by definition. */
const NM_PER_LBF_FT = 4.4482216152605 * 0.3048

/** A torque as typed, in N·m: 52 lbf·ft becomes 70.5; what is no torque stays as typed, for its check to name it. */
export function newtonMetres(typed: number | string | null): number | string | null {
  const text = String(typed ?? '').trim()
  if (text === '') return null
  const said = /^([\d.,]+)\s*(n\W*m|(?:lbs?|lbf|ft)\W*(?:lbs?|lbf|ft))?$/i.exec(text)
  if (said === null) return text
  const value = Number(said[1]?.replace(',', '.'))
  if (!Number.isFinite(value)) return text
  return /^(lb|ft)/i.test(said[2] ?? '') ? Math.round(value * NM_PER_LBF_FT * 100) / 100 : value
}

/** A torque kept in N·m: 70 N·m (52 lbf·ft). */
export function torqueText(newtonMetres: number | string): string {
  const value = Number(newtonMetres)
  return `${value} N·m (${Math.round(value / NM_PER_LBF_FT)} lbf·ft)`
}

/** A share as percent, never rounded up to certain. */
export function percentText(share: number): string {
  if (share > 0.99 && share < 1) return '>99 %'
  if (share > 0 && share < 0.01) return '<1 %'
  return `${Math.round(share * 100)} %`
}
