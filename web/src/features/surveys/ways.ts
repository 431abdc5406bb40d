/** What loads a part while it is read: several may load it at once, and each is part of how it was read. */

/** What can be chosen among, and that nothing was said. */
export const choicesOf = (words: readonly string[] = []) => [
  { value: '', label: 'not said' },
  ...words.map((one) => ({ value: one, label: one })),
]

const AND = '; '

/** A load as it is kept, from its two parts. */
export const loadOf = (first: string, also: string): string => [first, also].filter(Boolean).join(AND)

/** The two parts of a load as it is kept; ``others`` are the words of the second. */
export function partsOfLoad(others: readonly string[], load: string): [string, string] {
  const said = load.split(AND)
  const also = said.find((one) => others.includes(one)) ?? ''
  return [said.filter((one) => one !== also).join(AND), also]
}
