/** In which ways a feature can be held and measured; both schools stand side by side. */
import type { Quantity } from '@/api/generated'

const ON_DECK = ['free, no plate', 'torque plate on, gasket in', 'torque plate on, no gasket', 'head on']
const CAPS = ['main caps torqued', 'main caps off']

/** What loads a part while it is read; several may load it at once, and each is part of how it was read. */
export const LOADS: Partial<Record<Quantity, readonly string[]>> = {
  'block bore': ON_DECK,
  'liner bore': ON_DECK,
  'main bore': ['caps torqued', 'caps finger tight'],
  'trial fit': ['dry', 'oiled'],
  'deck flatness': ['block level on the machine', 'block on its feet'],
  'piston skirt': ['piston new', 'piston used', 'skirt may have collapsed'],
}
export const ALSO_LOADS: Partial<Record<Quantity, readonly string[]>> = {
  'block bore': CAPS,
  'liner bore': CAPS,
}
/** What can be chosen among, and that nothing was said. */
export const choicesOf = (words: readonly string[] = []) => [
  { value: '', label: 'not said' },
  ...words.map((one) => ({ value: one, label: one })),
]

const AND = '; '

/** A load as it is kept, from its two parts. */
export const loadOf = (first: string, also: string): string => [first, also].filter(Boolean).join(AND)

/** The two parts of a load as it is kept. */
export function partsOfLoad(quantity: Quantity, load: string): [string, string] {
  const said = load.split(AND)
  const also = said.find((one) => ALSO_LOADS[quantity]?.includes(one)) ?? ''
  return [said.filter((one) => one !== also).join(AND), also]
}

export const METHODS: Partial<Record<Quantity, readonly string[]>> = {
  'deck flatness': ['indicator grid', 'straightedge and feeler'],
  'neighbour gap': ['feeler blade', 'gauge blocks'],
  'ring gap': ['feeler blade'],
  levelling: ['from the deck', 'from the sump rail', 'from the main bores'],
  'set-up indicator': ['rough set-up', 'fine set-up'],
  'piston clearance': ['feeler, piston against the other wall', 'feeler, piston hanging free'],
}
