/** The jobs on the floor: found by a few letters, and by what is said of them. */
import { computed, type ComputedRef, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { FloorStrip } from '@/api/generated'

export type FloorShow = 'all' | 'out' | 'waits' | 'due' | 'ready'

export const SHOWN: readonly [FloorShow, string][] = [
  ['all', 'All'],
  ['out', 'Out or in doubt'],
  ['waits', 'Held up'],
  ['due', 'Due'],
  ['ready', 'Can go on'],
]

const has = (strip: FloorStrip, ...kinds: string[]) => strip.points.some((one) => kinds.includes(one.kind))

const IS: Record<FloorShow, (strip: FloorStrip) => boolean> = {
  all: () => true,
  out: (strip) =>
    has(strip, 'out', 'zero doubtful', 'cannot tell', 'read again') ||
    strip.holes.some((hole) => ['out', 'cannot tell', 'read again'].includes(hole.state)),
  waits: (strip) => has(strip, 'waits', 'hold point'),
  due: (strip) => has(strip, 'late', 'due soon'),
  ready: (strip) => !strip.released && !has(strip, 'waits', 'hold point'),
}

const textOf = (strip: FloorStrip) => {
  const { name, number, customer, serial, complaint } = strip.job
  return [name, number, customer, serial, complaint, strip.engine].join(' ').toLowerCase()
}

/** Those that hold every word that is looked for. */
export const found = (strips: readonly FloorStrip[], words: string, show: FloorShow): FloorStrip[] => {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  return strips.filter((strip) => IS[show](strip) && wanted.every((word) => textOf(strip).includes(word)))
}

export const count = (strips: readonly FloorStrip[], show: FloorShow): number =>
  strips.filter(IS[show]).length

export interface FloorFilter {
  words: Ref<string>
  show: ComputedRef<FloorShow>
  away: ComputedRef<boolean>
  look: (at: { show?: FloorShow; away?: boolean }) => void
}

/** The address holds what is looked for, so that it can be sent to a colleague. */
export function useFloorFilter(): FloorFilter {
  const route = useRoute()
  const router = useRouter()
  const put = (query: Record<string, string>) => {
    const kept = { ...route.query, ...query }
    void router.replace({ query: Object.fromEntries(Object.entries(kept).filter(([, one]) => one !== '')) })
  }
  return {
    words: computed({
      get: () => String(route.query['find'] ?? ''),
      set: (find) => put({ find }),
    }),
    show: computed(() => SHOWN.find(([name]) => name === route.query['show'])?.[0] ?? 'all'),
    away: computed(() => route.query['away'] === 'yes'),
    look: ({ show, away }) =>
      put({
        ...(show === undefined ? {} : { show: show === 'all' ? '' : show }),
        ...(away === undefined ? {} : { away: away ? 'yes' : '' }),
      }),
  }
}
