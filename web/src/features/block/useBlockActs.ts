/** Where the copper button, Why and the bench lead from the hole at hand. */
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import type { Quantity } from '@/api/generated'
import type { JobNow } from '@/shared/state/job'
import { isClockLens } from '@/shared/subjects'

import { type BlockPlace, nextHour } from './place'
import type { Bores } from './useBores'

interface BlockActs {
  act: () => void
  why: () => void
  bench: () => void
  /** All holes at once. */
  grid: () => void
}

export function useBlockActs(job: JobNow, place: BlockPlace, bores: Bores, typeHere: () => void): BlockActs {
  const router = useRouter()
  const { lens, quantity } = place
  const block = job.block
  const hole = computed(() => block.value?.holes.find((one) => one.number === place.number.value) ?? null)
  const bore = computed(() => (lens.value === 'bore' ? bores.chosen.value : null))

  /** The bench of one bore, where it is read place by place and every rule is opened. */
  function toSurvey(of: Quantity | null, part: string): void {
    const params = { job: job.jobId, quantity: of ?? quantity.value ?? '', part }
    void router.push({ name: 'survey', params })
  }
  function why(): void {
    if (bore.value) toSurvey(quantity.value, bore.value.survey.part.key)
    else place.go({ open: 'why' })
  }

  function act(): void {
    const now = hole.value
    if (!now || !block.value) return
    const need = bore.value?.need ?? now.need
    const params = { job: job.jobId, hole: String(now.number) }
    switch (need.action) {
      case 'cut':
      case 'fit':
        return void router.push({ name: 'cut', params })
      case 'read flange':
        return void router.push({
          name: 'liners',
          params: { job: job.jobId },
          query: { liner: need.liner_mark },
        })
      case 'read':
        place.go({ lens: 'protrusion', hour: need.hours[0] ?? null })
        return typeHere()
      case 'read depth':
        place.go({
          lens: 'counterbore',
          hour: nextHour(now, 'counterbore', block.value.card.required_hours, null) ?? need.hours[0] ?? null,
        })
        return typeHere()
      case 'read survey':
        return toSurvey(need.quantity, need.part)
      case 'route':
        return void router.push({ name: 'route', params: { job: job.jobId } })
      case 'explain':
        return place.go({ open: 'why' })
      case 'nothing':
    }
  }

  function grid(): void {
    const of = lens.value === 'protrusion' ? 'protrusion' : 'ledges'
    void router.push({ name: 'grid', params: { job: job.jobId }, query: { of } })
  }

  function bench(): void {
    const first = bores.chosen.value ?? bores.data.value?.bores[0]
    if (lens.value === 'bore' && first) return toSurvey(quantity.value, first.survey.part.key)
    if (isClockLens(lens.value))
      void router.push({ name: 'bench', params: { job: job.jobId, lens: lens.value } })
  }

  return { act, why, bench, grid }
}
