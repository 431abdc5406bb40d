/** What is wrong, by the path of its field; a form provides it, its fields show it. */
import type { InjectionKey, Ref } from 'vue'

import type { Refusal } from '@/api/ask'

export type Problems = ReadonlyMap<string, string>

export const NO_PROBLEMS: Problems = new Map()
export const PROBLEMS: InjectionKey<Ref<Problems>> = Symbol('problems')

/** What is wrong at a field; of a list typed as one line, what is wrong with one of its entries, and with which. */
export function problemAt(problems: Problems, path: string | undefined, list = false): string {
  if (!path) return ''
  const own = problems.get(path)
  if (own !== undefined || !list) return own ?? ''
  const [of, message] = [...problems].find(([field]) => field.startsWith(`${path}.`)) ?? []
  if (of === undefined) return ''
  return `Entry ${Number.parseInt(of.slice(path.length + 1), 10) + 1}: ${message}`
}

/** Problems of a refused request; a prefix such as "card." of the request's own shape is taken off. */
export function problemsOf(refusal: Refusal | null, prefix = ''): Problems {
  if (refusal === null) return NO_PROBLEMS
  return new Map(
    refusal.problems.map((one) => [
      one.field.startsWith(prefix) ? one.field.slice(prefix.length) : one.field,
      one.message,
    ]),
  )
}

/** A refusal that no field of a form tells by itself; null where each of its problems stands at a field. */
export function elsewhere(refusal: Refusal | null, fields: readonly string[]): Refusal | null {
  if (
    !refusal ||
    (refusal.problems.length > 0 && refusal.problems.every((one) => fields.includes(one.field)))
  )
    return null
  return refusal
}
