/** Which hole and clock position is at hand: part of the address, so it can be sent and survives a reload. */
import { computed, type ComputedRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { BlockView, HoleView, Quantity } from '@/api/generated'
import { type Lens, lensOf } from '@/shared/subjects'

export interface BlockPlace {
  lens: ComputedRef<Lens>
  quantity: ComputedRef<Quantity>
  number: ComputedRef<number | null>
  hour: ComputedRef<number | null>
  open: ComputedRef<string>
  go: (to: { hole?: number | null; hour?: number | null; lens?: Lens; open?: string }) => void
}

export function useBlockPlace(): BlockPlace {
  const route = useRoute()
  const router = useRouter()
  const lens = computed<Lens>(() => lensOf(route.params['lens']).name)
  const quantity = computed<Quantity>(() => lensOf(lens.value).quantity)
  const number = computed(() => Number(route.params['hole']) || null)
  const hour = computed(() => Number(route.query['at']) || null)
  const open = computed(() => String(route.query['open'] ?? ''))

  function go(to: { hole?: number | null; hour?: number | null; lens?: Lens; open?: string }): void {
    const hole = to.hole === undefined ? number.value : to.hole
    const at = to.hour === undefined ? hour.value : to.hour
    const panel = to.open === undefined ? open.value : to.open
    void router.replace({
      name: 'block',
      params: {
        job: route.params['job'],
        lens: to.lens ?? lens.value,
        hole: hole === null ? '' : String(hole),
      },
      query: { ...(at === null ? {} : { at: String(at) }), ...(panel ? { open: panel } : {}) },
    })
  }

  return { lens, quantity, number, hour, open, go }
}

/** The position to read next in a hole: the first required one that is missing, or the one after. */
export function nextHour(
  hole: HoleView,
  lens: Lens,
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
  lens: Lens,
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
