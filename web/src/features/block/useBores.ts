/** Every hole's bore, loaded with the block, so that changing to its lens waits for nothing. */
import { computed, type ComputedRef, type ShallowRef, watch } from 'vue'

import { ask } from '@/api/ask'
import { type BoresView, type BoreView, type Quantity, readBores } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { useLoaded } from '@/shared/state/useLoaded'

import type { BlockPlace } from './place'

export interface BoreLevelAt {
  name: string
  depth_um: string
  depth_m: number
}

export interface Bores {
  data: ShallowRef<BoresView | null>
  levels: ComputedRef<BoreLevelAt[]>
  axes: ComputedRef<number[]>
  /** The level shown: that of the address, else the first at which a hole is out, else the middle one. */
  level: ComputedRef<BoreLevelAt | null>
  axis: ComputedRef<number | null>
  chosen: ComputedRef<BoreView | null>
  /** Readings are deviations from a set size, typed in small units. */
  deviates: ComputedRef<boolean>
  stepLevel: (by: 1 | -1) => void
  stepAxis: (by: 1 | -1) => void
}

const um = (metres: number) => String(Math.round(metres * 1e9) / 1e3)

export function useBores(job: JobNow, place: BlockPlace): Bores {
  const quantity = computed<Quantity | null>(() =>
    place.lens.value === 'bore'
      ? place.quantity.value
      : (job.block.value?.lenses.find((one) => one.name === 'bore')?.quantities[0] ?? null),
  )
  const { data, load } = useLoaded<BoresView | null>(
    () =>
      quantity.value === null
        ? Promise.resolve(null)
        : ask(readBores({ path: { job_id: job.jobId, quantity: quantity.value } })),
    quantity,
  )
  // While another lens is looked at a reading costs no second request: they are loaded again when they are seen.
  watch([() => job.block.value?.event, place.lens], ([event], [before]) => {
    const seen = place.lens.value === 'bore' && event !== undefined && event !== data.value?.event
    if (seen && (before !== undefined || data.value !== null)) void load()
  })

  const pattern = computed(() => data.value?.bores[0]?.survey.pattern ?? null)
  const levels = computed(() =>
    (pattern.value?.levels ?? []).map((one) => ({ ...one, depth_um: um(one.depth_m) })),
  )
  const axes = computed(() => pattern.value?.axes_deg ?? [])
  const chosen = computed(() => data.value?.bores.find((one) => one.hole === place.number.value) ?? null)
  const level = computed(() => {
    const named = levels.value.find((one) => one.depth_um === place.level.value)
    if (named) return named
    const out = (chosen.value ?? data.value?.bores.find((one) => one.survey.part.state === 'out'))?.survey
    const place_um = out?.places.find((row) => row.state === 'out')?.place.level_um
    const worst = levels.value.find((one) => Number(one.depth_um) === Number(place_um ?? Number.NaN))
    return worst ?? levels.value[Math.floor(levels.value.length / 2)] ?? null
  })
  const axis = computed(() => place.axis.value)
  const deviates = computed(() => (data.value?.setup?.zeroed_on ?? 'datum') !== 'datum')

  function stepLevel(by: 1 | -1): void {
    const at = levels.value.findIndex((one) => one.depth_um === level.value?.depth_um)
    const next = levels.value[Math.min(levels.value.length - 1, Math.max(0, at + by))]
    if (next) place.go({ level: next.depth_um })
  }
  function stepAxis(by: 1 | -1): void {
    const at = axis.value === null ? -1 : axes.value.indexOf(axis.value)
    const count = axes.value.length
    if (count) place.go({ axis: axes.value[(at + by + count) % count] ?? null, level: level.value?.depth_um })
  }

  return { data, levels, axes, level, axis, chosen, deviates, stepLevel, stepAxis }
}
