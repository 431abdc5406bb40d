/** Which hole and clock position is at hand: part of the address, so it can be sent and survives a reload. */
import { computed, type ComputedRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { BlockView, HoleView, Quantity } from '@/api/generated'
import { type ClockLens, type Lens, lensOf } from '@/shared/subjects'

export interface BlockPlace {
  lens: ComputedRef<Lens>
  /** The feature that is looked at; null where a lens holds several against each other. */
  quantity: ComputedRef<Quantity | null>
  number: ComputedRef<number | null>
  hour: ComputedRef<number | null>
  /** Level [µm] and axis [deg] of a bore. */
  level: ComputedRef<string | null>
  axis: ComputedRef<number | null>
  open: ComputedRef<string>
  go: (to: Place) => void
}

interface Place {
  hole?: number | null
  hour?: number | null
  level?: string | null
  axis?: number | null
  lens?: Lens
  of?: Quantity
  open?: string
}

export function useBlockPlace(block: () => BlockView | null): BlockPlace {
  const route = useRoute()
  const router = useRouter()
  const lens = computed<Lens>(() => lensOf(route.params['lens']).name)
  const offered = computed(() => block()?.lenses.find((one) => one.name === lens.value)?.quantities ?? [])
  const quantity = computed<Quantity | null>(() => {
    const wanted = offered.value.find((one) => one === route.query['of'])
    return wanted ?? offered.value[0] ?? lensOf(lens.value).quantity
  })
  const number = computed(() => Number(route.params['hole']) || null)
  const hour = computed(() => Number(route.query['at']) || null)
  const level = computed(() => (typeof route.query['level'] === 'string' ? route.query['level'] : null))
  const axis = computed(() => (typeof route.query['axis'] === 'string' ? Number(route.query['axis']) : null))
  const open = computed(() => String(route.query['open'] ?? ''))

  function go(to: Place): void {
    const kept = <T>(now: T | undefined, before: T) => (now === undefined ? before : now)
    const hole = kept(to.hole, number.value)
    const moved = to.lens !== undefined && to.lens !== lens.value
    const query = {
      at: moved ? null : kept(to.hour, hour.value),
      level: moved ? null : kept(to.level, level.value),
      axis: moved ? null : kept(to.axis, axis.value),
      of: moved || quantity.value === offered.value[0] ? (to.of ?? null) : (to.of ?? quantity.value),
      open: kept(to.open, open.value) || null,
    }
    void router.replace({
      name: 'block',
      params: {
        job: route.params['job'],
        lens: to.lens ?? lens.value,
        hole: hole === null ? '' : String(hole),
      },
      query: Object.fromEntries(
        Object.entries(query)
          .filter(([, value]) => value !== null)
          .map(([name, value]) => [name, String(value)]),
      ),
    })
  }

  return { lens, quantity, number, hour, level, axis, open, go }
}

/** The position to read next in a hole: the first required one that is missing, or the one after. */
export function nextHour(
  hole: HoleView,
  lens: ClockLens,
  required: readonly number[],
  after: number | null,
): number | null {
  const read = new Set(
    (lens === 'protrusion' ? hole.marks : hole.parts.ledge_depths).map((mark) => mark.hour),
  )
  if (after !== null) read.add(after)
  const start = after === null ? 0 : required.indexOf(after) + 1
  const order = [...required.slice(start), ...required.slice(0, start)]
  return order.find((hour) => !read.has(hour)) ?? null
}

/** Where the gauge goes after a reading: on in this hole, or to the next hole with something missing. */
export function placeAfter(
  block: BlockView,
  lens: ClockLens,
  hole: number,
  hour: number | null,
): { hole: number; hour: number | null } {
  const required = block.card.required_hours
  const present = block.holes.find((one) => one.number === hole)
  const here = present ? nextHour(present, lens, required, hour) : null
  if (here !== null) return { hole, hour: here }
  const at = block.holes.findIndex((one) => one.number === hole)
  for (const next of [...block.holes.slice(at + 1), ...block.holes.slice(0, Math.max(0, at))]) {
    const open = lens === 'counterbore' || next.liner !== null ? nextHour(next, lens, required, null) : null
    if (open !== null) return { hole: next.number, hour: open }
  }
  return { hole, hour }
}
