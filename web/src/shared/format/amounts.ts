/** Plain amounts as they are typed: money, hours, days. */
import { Refusal } from '@/api/ask'

/** The amount, null where nothing is typed; what is no amount is refused at its field. */
export function amountAt(field: string, text: string): number | null {
  const plain = text.trim().replace(',', '.')
  if (plain === '') return null
  const value = Number(plain)
  if (Number.isFinite(value) && value >= 0) return value
  const message = `“${text.trim()}” is no amount: type a number, such as 68 or 24.5.`
  throw new Refusal('wrong', message, [{ field, message }])
}
