/** In which ways a feature can be held and measured; both schools stand side by side. */
import type { Quantity } from '@/api/generated'

const BORE_LOADS = ['free, no plate', 'torque plate on, gasket in', 'torque plate on, no gasket', 'head on']

export const LOADS: Partial<Record<Quantity, readonly string[]>> = {
  'block bore': [...BORE_LOADS, 'main caps torqued', 'main caps off'],
  'liner bore': BORE_LOADS,
  'main bore': ['caps torqued', 'caps finger tight'],
  'trial fit': ['dry', 'oiled'],
  'deck flatness': ['block level on the machine', 'block on its feet'],
  'piston skirt': ['piston new', 'piston used', 'skirt may have collapsed'],
}
export const METHODS: Partial<Record<Quantity, readonly string[]>> = {
  'deck flatness': ['indicator grid', 'straightedge and feeler'],
  'neighbour gap': ['feeler blade', 'gauge blocks'],
  'ring gap': ['feeler blade'],
  levelling: ['from the deck', 'from the sump rail', 'from the main bores'],
  'set-up indicator': ['rough set-up', 'fine set-up'],
  'piston clearance': ['feeler, piston against the other wall', 'feeler, piston hanging free'],
}
